using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>What to say to a serial that was read at a step: the comparison, and where else on this ticket it is known from.</summary>
public static class SerialAdvice
{
    public static string On(Ticket ticket, string read, SerialComparison comparison)
    {
        if (comparison.Outcome != SerialOutcome.Different)
            return comparison.Sentence;
        if (ticket.PartToFit is { } part && SerialComparison.Between(read, part.Serial).Outcome == SerialOutcome.Exact)
            return $"{comparison.Sentence} That is the replacement you brought.";
        return (ticket.Before ?? ticket.Latest)?.Holding(read) is { } bay
            ? $"{comparison.Sentence} That is the drive of bay {bay.Label}{(bay.Array is null ? "" : $", {Words.Of(bay.Role)} of {bay.Array}")}."
            : comparison.Sentence;
    }
}
