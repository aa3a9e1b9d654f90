using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps;

/// <summary>How an answer moves a run on.</summary>
public static class Stepping
{
    internal static Ticket Answer(Ticket ticket, RunSheet sheet, Run run, RunStep step, string answer, Stamp stamp)
    {
        var (branch, said) = Branch(ticket, sheet, step, answer);
        var late = run.Limits.Find(l => l.Until == step.Id && stamp.At > l.Deadline);
        var recorded = Recording.Of(ticket, sheet, step, answer, branch, stamp);
        if (late is not null)
            recorded = recorded.Raise(stamp, "limit", $"'{step.Id}' was to be done by {late.Deadline.UtcDateTime:HH:mm:ss} UTC and was done {Rebuilds.Watch.Told(stamp.At - late.Deadline)} later.");
        return recorded with { Run = run.After(step, new(step.Id, answer, branch, said, stamp.At, stamp.By)) };
    }

    /// <summary>Which of the step's answers a text comes to, and what to say to it.</summary>
    public static (string Branch, string? Said) Branch(Ticket ticket, RunSheet sheet, RunStep step, string answer)
    {
        if (step.Kind == StepKind.Read)
            return (RunStep.Done, null);
        if (step.Kind != StepKind.Scan || Expected(ticket, sheet, step) is not { } expected)
            return (answer, null);
        var comparison = SerialComparison.Between(answer, expected);
        return (Words.Of(comparison.Outcome), SerialAdvice.On(ticket, answer, comparison));
    }

    /// <summary>The serial a scan is held against; null where there is none to hold it against.</summary>
    public static string? Expected(Ticket ticket, RunSheet sheet, RunStep step) =>
        step.Against switch
        {
            ScanTarget.DriveOut => sheet.TargetSerial,
            ScanTarget.DriveIn => ticket.Part?.Serial,
            ScanTarget.Chassis => sheet.ChassisSerial,
            _ => null,
        };

    /// <summary>The bay the step's drawing points at; null where it points at none. A wrong drive goes back where it came from, not where the right one sits.</summary>
    public static string? Bay(Ticket ticket, RunSheet sheet, RunStep step) =>
        step.Points != PointsAt.Bay ? null
        : step.Records == Records.PutBack ? Recording.BayOf(ticket, sheet, ticket.Swap.WrongOut)
        : sheet.TargetBay;
}
