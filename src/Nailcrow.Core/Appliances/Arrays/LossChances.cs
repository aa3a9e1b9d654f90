using System.Globalization;

namespace Nailcrow.Core.Appliances.Arrays;

/// <summary>A chance between two bounds, both from 0 to 1, with how it was reckoned.</summary>
/// <param name="Told">The range in percent as people read it, with no more digits than it is worth.</param>
public sealed record Chance(double Low, double High, string Told, string Formula, IReadOnlyList<string> Inputs)
{
    // Below this the inputs are worth less than the digits.
    private const double Least = 0.0001;

    public static Chance Of(double low, double high, string formula, IReadOnlyList<string> inputs) =>
        new(
            low,
            high,
            high == 0 ? "0 %"
                : high < Least ? "under 0.01 %"
                : $"{(low < Least ? "under 0.01" : Percent(low))} to {Percent(high)} %",
            formula,
            inputs
        );

    /// <summary>Two significant digits.</summary>
    private static string Percent(double share) =>
        decimal.Parse((share * 100).ToString("G2", CultureInfo.InvariantCulture), NumberStyles.Float, CultureInfo.InvariantCulture)
            .ToString(CultureInfo.InvariantCulture);
}

/// <summary>
/// Two ways data may be lost before redundancy is back: more drives failing than the array can lose, and a sector that
/// cannot be read while nothing is left to make it up from. Both are estimates.
/// </summary>
/// <param name="HoursLow">The rebuild's physical floor, in hours.</param>
public sealed record LossChances(double HoursLow, double HoursHigh, Chance DrivesFail, Chance Unreadable)
{
    // A disk runs at half its outer rate at the inner end: reading it through takes 2·ln 2 times bytes / outer rate.
    private const double WholeDisk = 1.386;

    // A rebuild shares the drives with the customer's work; three times the floor is common, more is a stall.
    private const double UnderWork = 3;

    // Yearly failure rate where no drive model states one, and how much more drives of one batch and age show.
    private const double YearlyRate = 0.01;
    private const double SameBatch = 3;

    // Datasheets state less than one unreadable sector in 10^14 (desktop) or 10^15 (array duty) bits read.
    private const double BitErrorLow = 1e-15;
    private const double BitErrorHigh = 1e-14;

    private const double HoursInAYear = 8766;

    /// <summary>Null where the array has no redundancy to come back, or where nothing is known of its size.</summary>
    /// <param name="megabytesPerSecond">Outer rate of the slowest drive, decimal MB/s.</param>
    /// <param name="pulled">The drive that comes out: while it is out, a member that serves now is missing too.</param>
    public static LossChances? Of(
        Snapshot snapshot,
        DriveArray array,
        int megabytesPerSecond,
        double? yearlyRate = null,
        Bay? pulled = null
    )
    {
        var standing = Standing.Of(snapshot, array);
        var serves = pulled is not null && pulled.Array == array.Name && Standing.Serves(pulled);
        var margin = (serves ? standing.Without(pulled!) : standing.Margin).Worst; // it serves, so it is there
        var left = standing.Serving - (serves ? 1 : 0);
        if (
            margin < 0
            || left == 0
            || Redundancy.Of(array).Bears == 0
            || (array.MemberBytes ?? snapshot.Holding(array).Max(b => b.Bytes)) is not { } bytes
            || megabytesPerSecond <= 0
        )
            return null;
        var low = WholeDisk * bytes / (megabytesPerSecond * 1e6) / 3600;
        var high = low * UnderWork;
        return new(low, high, OfDrives(left, margin, low, high, yearlyRate ?? YearlyRate), OfReading(left, margin, bytes));
    }

    private static Chance OfDrives(int left, int margin, double low, double high, double rate) =>
        Chance.Of(
            AtLeast(margin + 1, left, FailsWithin(low, rate)),
            AtLeast(margin + 1, left, FailsWithin(high, Math.Min(1, rate * SameBatch))),
            $"P(at least {margin + 1} of n fail), each with 1 - (1 - r)^(t / year)",
            [
                $"n = {left} members left",
                $"r = {Percent(rate)} to {Percent(rate * SameBatch)} a year",
                $"t = {Hours(low)} to {Hours(high)} h",
            ]
        );

    /// <summary>With margin left, an unreadable sector is made up from the others and loses nothing.</summary>
    private static Chance OfReading(int left, int margin, long bytes)
    {
        if (margin > 0)
            return Chance.Of(0, 0, "0: with margin left, an unreadable sector is made up from the other members", [$"margin = {margin}"]);
        var bits = 8.0 * bytes * left;
        return Chance.Of(
            1 - Math.Exp(-bits * BitErrorLow),
            1 - Math.Exp(-bits * BitErrorHigh),
            "1 - exp(-b · e)",
            [
                $"b = {bits.ToString("0.##e0", CultureInfo.InvariantCulture)} bits to read from {left} members",
                "e = 1e-15 to 1e-14 unreadable per bit, as datasheets state",
            ]
        );
    }

    private static double FailsWithin(double hours, double yearly) => 1 - Math.Pow(1 - yearly, hours / HoursInAYear);

    /// <summary>The upper tail of the binomial distribution.</summary>
    private static double AtLeast(int some, int of, double each)
    {
        if (each >= 1) // so long a time that none outlives it; the ratio of neighbouring terms has no value then
            return some <= of ? 1 : 0;
        var (sum, term) = (0.0, Math.Pow(1 - each, of)); // the term for none
        for (var k = 0; k <= of; k++)
        {
            if (k >= some)
                sum += term;
            term *= (of - k) / (double)(k + 1) * each / (1 - each);
        }
        return Math.Min(1, sum);
    }

    private static string Percent(double share) => (share * 100).ToString("0.##", CultureInfo.InvariantCulture) + " %";

    private static string Hours(double hours) => hours.ToString("0.#", CultureInfo.InvariantCulture);
}
