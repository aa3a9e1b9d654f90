using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>
/// Into which bay a wrong drive went back: the one that stood open. Either the hand slipped, and it is the one that the software
/// has the drive in, or the software's names are off, and it is the one that was looked for. Only the hand knows, so it is asked.
/// </summary>
public static class WentBack
{
    /// <summary>The bays it may have been, where they are two: the one that was looked for, and the one the software names.</summary>
    public static IReadOnlyList<string> Possible(Ticket ticket, RunSheet sheet, RunStep step) =>
        step.Records == Records.PutBack
        && sheet.GoesByTheHand()
        && ticket.Before?.Holding(ticket.Swap.WrongOut)?.Label is { } named
        && !Same(named, sheet.DriveOf(step).Bay)
            ? [sheet.DriveOf(step).Bay, named]
            : [];

    /// <summary>The bay as it was said, by its label or as "bay 3"; null where a step asks for none, or none was said.</summary>
    public static string? Said(Ticket ticket, RunStep step, string answer)
    {
        if (step.Records != Records.PutBack || answer is RunStep.Done or RunStep.NotSo)
            return null;
        var label = answer.StartsWith("bay ", StringComparison.OrdinalIgnoreCase) ? answer[4..].Trim() : answer.Trim();
        return (ticket.Before ?? ticket.Latest)?.BayLabelled(label)?.Label;
    }

    /// <summary>
    /// The bay it is taken to be in: the one that was said, else the one that was looked for, since that is where the hand was sent. Sheets
    /// from before anybody was asked went by the software.
    /// </summary>
    internal static string Bay(Ticket ticket, RunSheet sheet, RunStep step, string? serial, string answer = RunStep.Done) =>
        Said(ticket, step, answer) ?? (sheet.GoesByTheHand() ? null : ticket.Before?.Holding(serial)?.Label) ?? sheet.DriveOf(step).Bay;

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
