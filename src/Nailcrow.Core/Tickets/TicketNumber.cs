using System.Globalization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets;

/// <summary>A ticket's number as people write it: <c>T-1042</c>.</summary>
public static class TicketNumber
{
    public static string Text(long number) => $"T-{number.ToString(CultureInfo.InvariantCulture)}";

    public static Parsed<long> Parse(string? text)
    {
        var digits = (text ?? "").Trim();
        if (digits.StartsWith("T-", StringComparison.OrdinalIgnoreCase))
            digits = digits[2..];
        return long.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number > 0
            ? new Parsed<long>.Ok(number)
            : new Parsed<long>.Refused($"'{text}' is not a ticket number; write T-1042 or 1042.");
    }
}
