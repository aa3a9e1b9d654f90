using System.Globalization;

namespace Nailcrow.Bench;

internal static class Told
{
    public static double Median(IEnumerable<double> values)
    {
        var sorted = values.Order().ToList();
        return sorted.Count % 2 == 1 ? sorted[sorted.Count / 2] : (sorted[sorted.Count / 2 - 1] + sorted[sorted.Count / 2]) / 2;
    }

    /// <summary>One line: ours, the floor, their ratio, and what was asked.</summary>
    public static void Line(string what, double ours, double floor, string unit, string asked) =>
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{what, -34} {ours, 10:0.##} {unit, -10} floor {floor, 10:0.##} {unit, -10} ratio {ours / floor, 6:0.00}   asked: {asked}"
            )
        );

    /// <summary>
    /// Ours and the floor in turn, in short windows, so that whatever else the machine and its disk do falls on both: the median of
    /// the ratios of neighbours, with the least and the greatest of them.
    /// </summary>
    public static async Task InTurnAsync(
        string what,
        Func<Task<double>> ours,
        Func<Task<double>> floor,
        int rounds,
        string unit,
        string asked
    )
    {
        var (mine, bare) = (new List<double>(), new List<double>());
        for (var round = 0; round < rounds; round++)
        {
            bare.Add(await floor());
            mine.Add(await ours());
        }
        var ratios = mine.Zip(bare, (o, f) => o / f).ToList();
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{what, -34} {Median(mine), 10:0.##} {unit, -10} floor {Median(bare), 10:0.##} {unit, -10} ratio "
                    + $"{Median(ratios), 6:0.00} ({ratios.Min():0.00} to {ratios.Max():0.00}, {rounds} rounds)   asked: "
                    + $"{asked}"
            )
        );
    }

    public static void Plain(string what, double value, string unit, string asked) =>
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what, -34} {value, 10:0.##} {unit, -10} asked: {asked}"));
}
