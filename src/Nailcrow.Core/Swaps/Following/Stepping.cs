using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following;

/// <summary>How an answer moves a run on.</summary>
public static class Stepping
{
    /// <summary>A text that does not name what it would destroy leads nowhere.</summary>
    public const string NotNamed = "not-named";

    internal static Ticket Answer(Ticket ticket, RunSheet sheet, Run run, RunStep step, string answer, Stamp stamp)
    {
        var (branch, said) = Branch(ticket, sheet, step, answer);
        if (run.Shown.Contains(step.Id))
            said = $"{said} It had been shown before it was read.".TrimStart();
        var late = run.Limits.Find(l => l.Until == step.Id && stamp.At > l.Deadline);
        var recorded = Recording.Of(ticket, sheet, step, answer, branch, stamp);
        if (late is not null)
            recorded = recorded.Raise(
                stamp,
                "limit",
                $"'{step.Id}' was to be done by {late.Deadline.UtcDateTime:HH:mm:ss} UTC and was done {Rebuilds.Watch.Told(stamp.At - late.Deadline)} later."
            );
        return Visited(recorded, sheet, run, step, new(step.Id, answer, branch, said, stamp.At, stamp.By));
    }

    /// <summary>The ticket once a step has been visited: the next drive's turn may come, or an interrupted sheet's.</summary>
    internal static Ticket Visited(Ticket ticket, RunSheet sheet, Run run, RunStep step, Visit visit)
    {
        var after = run.After(sheet, step, visit);
        var moved = ticket with { Run = after };
        if (after is { IsFinished: true, HandedOver: false } && ticket.Interrupted is [.., var left])
            return moved with
            {
                Sheet = left.Sheet,
                Run = left.Run.Resumed(visit.At),
                Interrupted = ticket.Interrupted.RemoveAt(ticket.Interrupted.Count - 1),
            };
        // Ended for good: what a recovery interrupted ends with it, and what is left is the lead's.
        if (after is { IsFinished: true, HandedOver: true })
            return moved with { Interrupted = [] };
        return sheet.Step(after.Current)?.Drive > ticket.EarlierSwaps.Count && ticket.Swap.InSerial is not null ? NextDrive(moved) : moved;
    }

    /// <summary>The machine is the same one; bay, marks and serials start anew.</summary>
    private static Ticket NextDrive(Ticket ticket) =>
        ticket with
        {
            EarlierSwaps = ticket.EarlierSwaps.Add(ticket.Swap),
            Swap = Swap.NotBegun with { ChassisMarks = [.. ticket.Swap.ChassisMarks.Select(m => m with { Attempt = 0 })] },
        };

    /// <summary>Which of the step's answers a text comes to, and what to say to it.</summary>
    public static (string Branch, string? Said) Branch(Ticket ticket, RunSheet sheet, RunStep step, string answer)
    {
        if (step.Kind is StepKind.Read or StepKind.Do && answer == RunStep.NotSo && step.Leading(RunStep.NotSo) is not null)
            return (RunStep.NotSo, null);
        if (WentBack.Said(ticket, step, answer) is { } bay)
            return (RunStep.Done, $"It went back into bay {bay}.");
        if (step.Erases)
            return Naming(ticket, sheet, step, answer);
        if (step.Kind == StepKind.Read)
            return (RunStep.Done, null);
        if (ByAbsence.IsMeant(step, answer) && ticket.Run is { } asked)
            return ByAbsence.Of(ticket, sheet, step, asked) is var (branch, said, _) ? (branch, said) : default;
        if (step.Kind != StepKind.Scan || Expected(ticket, sheet, step) is not { } expected)
            return (answer, null);
        if (sheet.ReadingRules > 0 && ticket.Run is { } run)
        {
            var reading = ScanReading.Of(ticket, run, step.Id, answer, expected);
            return (Words.Of(reading.Outcome), reading.Sentence);
        }
        var comparison = SerialComparison.Between(answer, expected, dashesCount: true);
        return (Words.Of(comparison.Outcome), SerialAdvice.On(ticket, answer, comparison));
    }

    /// <summary>The serial a scan is held against, or that an erasing step has to name; null where there is none to hold it against.</summary>
    public static string? Expected(Ticket ticket, RunSheet sheet, RunStep step) =>
        step switch
        {
            { Against: ScanTarget.DriveOut } => sheet.DriveOf(step).Serial,
            { Against: ScanTarget.DriveIn } => PartFor(ticket, sheet, step),
            { Against: ScanTarget.Chassis } => sheet.ChassisSerial,
            { Erases: true } => ticket.SwapOf(step).InSerial ?? sheet.DriveOf(step).Serial,
            _ => null,
        };

    internal static string? PartFor(Ticket ticket, RunSheet sheet, RunStep step) => sheet.DriveOf(step).PartSerial ?? ticket.Part?.Serial;

    /// <summary>The bay the step's drawing points at; null where it points at none.</summary>
    public static string? Bay(Ticket ticket, RunSheet sheet, RunStep step) =>
        step.Points != PointsAt.Bay ? null
        : step.Records == Records.PutBack ? PutBackBay(ticket, sheet, step)
        : sheet.DriveOf(step).Bay;

    /// <summary>None, where nobody but the hand knows which of two it is.</summary>
    private static string? PutBackBay(Ticket ticket, RunSheet sheet, RunStep step) =>
        WentBack.Possible(ticket, sheet, step).Count > 0 ? null : WentBack.Bay(ticket, sheet, step, ticket.Swap.WrongOut);

    /// <summary>Nothing is destroyed by pressing a button: bay and serial are both said, in either order.</summary>
    private static (string, string?) Naming(Ticket ticket, RunSheet sheet, RunStep step, string answer)
    {
        var (bay, serial) = (sheet.DriveOf(step).Bay, Expected(ticket, sheet, step) ?? "");
        var words = answer.Split([' ', ',', '/', ';'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        var bayNamed = words.Contains(bay, StringComparer.OrdinalIgnoreCase);
        var serialNamed = words.Any(w => SerialComparison.Between(w, serial).Outcome == SerialOutcome.Exact);
        return bayNamed && serialNamed
            ? (RunStep.Done, $"Bay {bay}, {serial}.")
            : (
                NotNamed,
                "This destroys what is on the drive. Name "
                    + $"{(bayNamed ? "" : $"the bay ({bay})")}{(bayNamed || serialNamed ? "" : " and ")}{(serialNamed ? "" : $"the serial ({serial})")} "
                    + "as they stand on the machine's screen."
            );
    }
}
