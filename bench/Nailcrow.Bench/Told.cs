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
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what,-34} {ours,10:0.##} {unit,-10} floor {floor,10:0.##} {unit,-10} ratio {ours / floor,6:0.00}   asked: {asked}"));

    public static void Plain(string what, double value, string unit, string asked) =>
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what,-34} {value,10:0.##} {unit,-10} asked: {asked}"));
}
