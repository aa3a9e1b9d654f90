using System.Globalization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Procedures.Conditions;

/// <summary>What a number measures; values are kept in the base unit, which is the first one of each.</summary>
public enum Dimension
{
    Count,
    Time,
    Size,
    Percent,
    Temperature,
}

/// <summary>Numbers as people write them, with a unit.</summary>
public static class Quantity
{
    // Sizes of both kinds: decimal as on a drive's label (SI), binary as on many screens (IEC 80000-13).
    private static readonly Dictionary<Dimension, (string Unit, decimal InBase)[]> Units = new()
    {
        [Dimension.Count] = [("count", 1)],
        [Dimension.Time] = [("s", 1), ("min", 60), ("h", 3600), ("d", 86400)],
        [Dimension.Size] = [("B", 1), ("GB", 1e9m), ("TB", 1e12m), ("GiB", 1073741824m), ("TiB", 1099511627776m)],
        [Dimension.Percent] = [("%", 1)],
        [Dimension.Temperature] = [("°C", 1), ("C", 1)],
    };

    public static readonly IReadOnlyList<string> AllUnits = [.. Units.Values.SelectMany(u => u).Select(u => u.Unit)];

    public static string Accepted(Dimension dimension) =>
        dimension == Dimension.Count
            ? "a number without a unit"
            : $"a number with {string.Join(", ", Units[dimension].Select(u => u.Unit))}";

    public static Dimension? Measures(string unit)
    {
        foreach (var (dimension, units) in Units)
            if (units.Any(u => u.Unit == unit))
                return dimension;
        return null;
    }

    /// <summary>The value in base units. A number without a unit is taken in <paramref name="unit"/>, or refused where none is given.</summary>
    public static Parsed<decimal> Parse(string? text, Dimension dimension, string? unit = null)
    {
        var written = (text ?? "").Trim();
        var length = written.TakeWhile(c => char.IsAsciiDigit(c) || c is '.' or '-' or '+').Count();
        if (!decimal.TryParse(written[..length], NumberStyles.Number, CultureInfo.InvariantCulture, out var number))
            return new Parsed<decimal>.Refused($"'{written}' is no number; accepted: {Accepted(dimension)}.");
        var said = written[length..].Trim() is { Length: > 0 } own ? own : unit ?? Units[dimension][0].Unit;
        foreach (var (name, inBase) in Units[dimension])
            if (name == said)
                return new Parsed<decimal>.Ok(number * inBase);
        return new Parsed<decimal>.Refused(
            $"'{said}' does not measure {dimension.ToString().ToLowerInvariant()}; accepted: {Accepted(dimension)}."
        );
    }
}
