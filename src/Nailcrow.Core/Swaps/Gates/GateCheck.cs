using System.Collections.Immutable;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Swaps.Gates;

/// <summary>Whether a run may go on past a gate, a hold or a call: null, or what is missing and what to do about it.</summary>
public static class GateCheck
{
    /// <summary>
    /// Why nobody goes past it now. That a part is too small is said before it is gone by; of what was done before this was looked at, the
    /// record says nothing new.
    /// </summary>
    public static string? WhyNotYet(Ticket ticket, Run run, RunStep step, DateTimeOffset now) =>
        Unmet(ticket, run, step, now)
        ?? (
            step.Gate == GateFact.PartInHand && TooSmallByNow.Of(ticket) is { } small
                ? $"{small.Told()} Give it up as too small; stores reserves a larger one."
                : null
        );

    public static string? Unmet(Ticket ticket, Run run, RunStep step, DateTimeOffset now) =>
        step switch
        {
            { Kind: StepKind.Hold, Seconds: { } seconds } => Hold(run.Since.AddSeconds(seconds) - now),
            { Kind: StepKind.Call } => Call(ticket, run, step),
            _ => Unmet(ticket, run, step),
        };

    /// <summary>What a gate's fact still lacks. One arm each; what a fact means is said by the method it calls.</summary>
    internal static string? Unmet(Ticket ticket, Run run, RunStep step)
    {
        var seen = new GateSight(ticket, run, step);
        return step.Gate switch
        {
            null => null,
            GateFact.PartInHand => seen.PartInHand(),
            GateFact.BackupAsked => ticket.Backup is null
                ? "Nobody has said whether there is a backup; ask, and write down who says so."
                : null,
            GateFact.SnapshotBefore => seen.SnapshotBefore(),
            GateFact.NotRebuilding => seen.NotRebuilding(),
            GateFact.PullNotFatal => seen.PullNotFatal(),
            GateFact.WholeBefore => seen.WholeBefore(),
            GateFact.Released => seen.Released(),
            GateFact.ChassisEstablished => TwoMarks(ticket, ticket.Swap.ChassisMarks, 0, Records.ChassisMark),
            GateFact.BayEstablished => TwoMarks(ticket, ticket.Swap.BayMarks, ticket.Swap.Attempt, Records.BayMark),
            GateFact.AsBefore => seen.AsBefore(),
            GateFact.BayEmpty => seen.BayEmpty(),
            GateFact.NewDriveSeen => seen.NewDriveSeen(),
            GateFact.NothingForeign => seen.NothingForeign(),
            GateFact.LightOff => ticket.LocatorOn ? "The locator light is on; switch it off." : null,
            GateFact.RebuildSeen => seen.RebuildSeen(),
            GateFact.DriveJoined => seen.DriveJoined(),
            GateFact.ArrayWhole => seen.ArrayWhole(BayRole.Member),
            GateFact.SpareBack => seen.ArrayWhole(BayRole.Spare),
            GateFact.AllNewGood => seen.AllNewGood(),
            GateFact.Restored => ticket.RestoreConfirmedBy is null ? "The customer has not confirmed that the data is there again." : null,
            GateFact.SeenAgain => seen.SeenAgain(),
            GateFact.SnapshotAfter => seen.SnapshotAfter(),
            _ => throw new ArgumentOutOfRangeException(nameof(step), step.Gate, "No rule for this gate."),
        };
    }

    private static string? Hold(TimeSpan left) => left > TimeSpan.Zero ? $"Wait {Watch.Told(left)} more." : null;

    private static string? Call(Ticket ticket, Run run, RunStep step) =>
        ticket.Help is var help && HandsOverAfterANo(help, run, step) ? null
        : help is null || help.At < run.Since ? "Call for help, and say what you see."
        : help.IsOpen ? "Waiting for a lead's answer. Pull nothing meanwhile."
        : help.GoAhead == true || LeadsNo.KeepsOpen(ticket, run, step) is not { } open ? null
        : $"{help.AnsweredBy} refused: {help.Answer} {open} Call again and say so; with their word the sheet goes on to put it right.";

    /// <summary>A lead said no and knows; where that ends the run, they are not called a second time to be told.</summary>
    private static bool HandsOverAfterANo(HelpCall? help, Run run, RunStep step) =>
        help is { GoAhead: false }
        && step.Leading(RunStep.Done)?.Next == StepAnswer.HandOver
        && run.Visits.Exists(v => v.Branch == RunStep.Refused && v.At >= help.At);

    /// <summary>Two different marks in this attempt, one of which the attempt that went wrong did not go by.</summary>
    private static string? TwoMarks(Ticket ticket, ImmutableList<MarkSeen> seen, int attempt, Records records)
    {
        var what = records == Records.ChassisMark ? "machine" : "bay";
        var now = seen.Where(m => m.Attempt == attempt).Select(m => m.Mark).Distinct().ToList();
        if (now.Count < 2)
            return $"The {what} is known by {(now.Count == 0 ? "no mark" : $"'{now[0]}' only")}; two independent marks have to agree.";
        if (ticket.Sheet?.GoesByTheHand() == true && now.Select(m => Marks.SourceOf(records, m)).Distinct().Count() < 2)
            return $"The {what} is known by {string.Join(" and ", now.Select(m => $"'{m}'"))}, which are one mark: each is {Marks.SourceOf(records, now[0])}. "
                + "Find another one.";
        var last = seen.Where(m => m.Attempt == attempt - 1).Select(m => m.Mark).ToList();
        return last.Count > 0 && !now.Except(last).Any() && !now.Exists(Marks.IsWithALead)
            ? $"The same marks ({string.Join(", ", now)}) led to the wrong drive; find another one, or call for help."
            : null;
    }
}
