using System.Globalization;

namespace Nailcrow.Core.Procedures.Conditions;

public enum Comparison
{
    Exactly,
    Above,
    Below,
    AtLeast,
    AtMost,
}

/// <summary>How a number stands to another, and the words for it.</summary>
internal static class Comparisons
{
    public static string Of(Comparison how) =>
        how switch
        {
            Comparison.Exactly => "",
            Comparison.Above => "above ",
            Comparison.Below => "below ",
            Comparison.AtLeast => "at least ",
            _ => "at most ",
        };

    /// <summary>False where the text is no number: what was not answered is neither above nor below.</summary>
    public static bool Hold(Comparison how, string text, decimal number) =>
        decimal.TryParse(text, NumberStyles.Number, CultureInfo.InvariantCulture, out var value)
        && how switch
        {
            Comparison.Exactly => value == number,
            Comparison.Above => value > number,
            Comparison.Below => value < number,
            Comparison.AtLeast => value >= number,
            _ => value <= number,
        };
}
