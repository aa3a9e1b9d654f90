using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>
/// What a serial that was read at a scan comes to. A wrong drive is one that somebody knows, or that its label names twice; a slip,
/// a word or another code of the label is read again, and says nothing of any drive.
/// </summary>
internal static class ScanReading
{
    public static SerialComparison Of(Ticket ticket, Run run, string step, string read, string expected)
    {
        var comparison = SerialComparison.Between(read, expected);
        if (comparison.Outcome == SerialOutcome.Exact)
            return comparison;
        if (!SerialNumber.IsPlausible(read))
            return Again(
                "That is no serial: a label has 4 to 40 letters, digits and dashes, and a digit among them. Read what stands beside S/N."
            );
        var text = SerialNumber.Normalise(read);
        var other = new SerialComparison(SerialOutcome.Different, $"{text} was read; {SerialNumber.Normalise(expected)} was expected.");
        var gone = GivenUp(ticket, read);
        if (Owner(ticket, read) is { } owner)
            return other with { Sentence = $"{other.Sentence} {owner}" };
        if (comparison.Outcome == SerialOutcome.Fragment)
            return comparison;
        if (run.Visits is [.., var last] && last.Step == step && SerialNumber.Normalise(last.Answer) == text)
            return other with { Sentence = $"{other.Sentence} {gone ?? ReadTwice}" };
        var asked =
            comparison.Outcome == SerialOutcome.LikelyMisreading ? comparison
            : SerialComparison.IsOneSlip(text, expected)
                ? new(
                    SerialOutcome.LikelyMisreading,
                    $"{text} is one slip away from what was expected. Read it again; the same twice counts."
                )
            : Again(
                $"{text} is on no drive and no part that this ticket knows. It may be another code of the label (a part number, a "
                    + "worldwide name): read what stands beside S/N. The same twice counts."
            );
        return gone is null ? asked : asked with { Sentence = $"{other.Sentence} {gone}" };
    }

    private const string ReadTwice = "Read twice, so that is what the label says; nobody here knows that drive.";

    private static SerialComparison Again(string sentence) => new(SerialOutcome.AskAgain, sentence);

    /// <summary>Whose serial it is, as a sentence; null where nobody here knows it.</summary>
    private static string? Owner(Ticket ticket, string read)
    {
        if (ticket.Parts.Exists(p => Is(read, p.Serial)))
            return GivenUp(ticket, read) ?? "That is the replacement you brought.";
        if (ticket.Swaps.Any(s => s.OutSerial is { } gone && Is(read, gone)))
            return "That drive came out on this ticket.";
        return ticket.Snapshots.Select(s => s.Holding(read)).LastOrDefault(b => b is not null) is { } bay
            ? $"That is the drive of bay {bay.Label}{(bay.Array is null ? "" : $", {Words.Of(bay.Role)} of {bay.Array}")}."
            : null;
    }

    /// <summary>A part that was to go in and is none any more, as a sentence: it may lie beside the one that took its place.</summary>
    private static string? GivenUp(Ticket ticket, string read) =>
        ticket.GivenUp.Find(p => Is(read, p.Serial)) is { GivenUp: { } why }
            ? $"That part was given up: {EntryTold.Said(Words.Of(why))}. Take the one that takes its place."
            : null;

    private static bool Is(string read, string serial) => SerialComparison.Between(read, serial).Outcome == SerialOutcome.Exact;
}
