using Nailcrow.Core.Appliances;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>
/// The label of the drive in hand cannot be read: then the machine is asked which serial is gone. Exactly the right one is the
/// right drive, another one is a wrong drive; where nobody can say, a lead is called and goes by what the picture shows.
/// </summary>
internal static class ByAbsence
{
    /// <summary>The answer at the scan of the drive that came out.</summary>
    public const string Unreadable = "unreadable";

    public static bool IsMeant(RunStep step, string answer) =>
        step.Records == Records.Pulled && string.Equals(answer.Trim(), Unreadable, StringComparison.OrdinalIgnoreCase);

    /// <returns>Which answer of the scan it comes to, what to say to it, and the serial that is gone where it is one.</returns>
    public static (string Branch, string Said, string? Gone) Of(Ticket ticket, RunSheet sheet, RunStep step, Run run)
    {
        var expected = sheet.DriveOf(step).Serial;
        var drawn = DrawnAt(sheet, run);
        if (ticket.Help is { GoAhead: true, At: var called, Answer: { } word, AnsweredBy: { } lead } && called >= drawn)
            return (Words.Of(SerialOutcome.Exact), $"Nobody can read it. {lead}: {word}", expected);
        if (ticket.Latest is not { } now || now.TakenAt < drawn)
            return Again(
                "Take a snapshot now, and say so again: the machine tells which serial is gone. A picture of the label helps whoever asks later."
            );
        if (ticket.Snapshots.FindLast(s => s.TakenAt < drawn && s.Holding(expected) is not null) is not { } before)
            return Again($"The machine did not list {expected} before, so that it is gone says nothing. Call a lead, with a picture.");
        var gone = before
            .Bays.Select(b => b.Serial)
            .OfType<string>()
            .Where(s => now.Holding(s) is null)
            .Select(SerialNumber.Normalise)
            .ToList();
        return gone switch
        {
            [] => Again("The machine still lists every drive. Wait until it has noticed, take a snapshot, and say so again; or call."),
            [var only] when SerialComparison.Between(only, expected).Outcome == SerialOutcome.Exact => (
                Words.Of(SerialOutcome.Exact),
                $"The label cannot be read; the machine misses exactly {only}, and nothing else.",
                only
            ),
            [var other] => (Words.Of(SerialOutcome.Different), $"The machine misses {other}; {expected} was expected.", other),
            _ => Again($"The machine misses {string.Join(" and ", gone)}: which of them is in your hand, nobody can say. Call a lead."),
        };
    }

    private static (string, string, string?) Again(string sentence) => (Words.Of(SerialOutcome.AskAgain), sentence, null);

    private static DateTimeOffset DrawnAt(RunSheet sheet, Run run) =>
        run.Visits.FindLast(v => sheet.Step(v.Step)?.Records == Records.DrawnOut)?.At ?? run.Since;
}
