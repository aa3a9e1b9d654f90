using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Guarding;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Swaps.Gates;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tickets.Telling;

/// <summary>How far a run sheet has been followed.</summary>
/// <param name="Current">The one step to do now; null at the end.</param>
/// <param name="Unmet">Why the current gate, hold or call cannot be passed yet; null where it can.</param>
/// <param name="Bay">The bay the current step points at; null where it points at none.</param>
/// <param name="HandedOver">It ended at a call; its end was not reached.</param>
/// <param name="Withdrawn">Why the procedure's version was withdrawn while the run goes on; null where it stands.</param>
/// <param name="Interrupts">The title of the sheet that goes on after this one; null where there is none.</param>
/// <param name="MapWarning">Why the software's name for the bay is not to be trusted yet; null where it was confirmed, or none is looked for.</param>
/// <param name="WaitsForRebuild">The rebuild opens the current gate by itself.</param>
/// <param name="MayBeShown">The serial to read is not shown yet; whoever asks to see it first is on record with that.</param>
/// <param name="MayBeUnreadable">'unreadable' is an answer here: the machine is asked which serial is gone.</param>
/// <param name="Stop">Why the current step must not be done, by what was recorded so far; null where it may be.</param>
/// <param name="Heard">What a lead said to a call from this step, until the run has gone on from it; null where nothing was said.</param>
/// <param name="Outdated">Why this sheet is for what is no longer so; another is made at a press, and what was done is carried over.</param>
/// <param name="Then">What the sheet says next if all goes as it should; null at its end.</param>
/// <param name="Place">The chapter it stands in, of how many.</param>
/// <param name="DoesNotAgree">
/// What was recorded since it began and contradicts something, while it is open; until the pull also what differs since the last ticket.
/// </param>
/// <param name="EndsHere">A lead said no to this call: going on from it ends the run, and what is left is theirs.</param>
/// <param name="LastScan">What was read last, beside what it was held against.</param>
/// <param name="Expected">The serial the current scan is held against.</param>
public sealed record RunView(
    RunSheet Sheet,
    RunStep? Current,
    DateTimeOffset Since,
    string? Unmet,
    string? Expected,
    string? Bay,
    IReadOnlyList<Visit> Visits,
    IReadOnlyList<RunningLimit> Limits,
    bool HandedOver = false,
    string? Withdrawn = null,
    string? Interrupts = null,
    string? MapWarning = null,
    bool WaitsForRebuild = false,
    bool MayBeShown = false,
    bool MayBeUnreadable = false,
    LastScan? LastScan = null,
    string? Stop = null,
    HelpCall? Heard = null,
    string? Outdated = null,
    string? Then = null,
    ChapterPlace? Place = null,
    IReadOnlyList<string>? DoesNotAgree = null,
    bool EndsHere = false
)
{
    internal static RunView? Of(Ticket ticket, Surroundings known, DateTimeOffset now)
    {
        if (ticket is not { Sheet: { } sheet, Run: { } run })
            return null;
        var step = sheet.Step(run.Current);
        var scanned = LastScan.Of(ticket, sheet, run);
        var unread = step is { Kind: StepKind.Scan } && !run.Shown.Contains(step.Id);
        return new(
            sheet,
            unread ? Unread(step!) : OwnAnswers(AskedWhere(ticket, sheet, step)), // unread where there is one
            run.Since,
            step is null ? null : GateCheck.WhyNotYet(ticket, run, step, now),
            step is null ? null : Stepping.Expected(ticket, sheet, step),
            step is null || unread ? null : Stepping.Bay(ticket, sheet, step),
            run.Visits,
            run.Limits,
            run.HandedOver,
            run.IsFinished ? null : known.Withdrawn,
            ticket.Interrupted.LastOrDefault()?.Sheet.Title,
            known.Sightings is { } seen && BayLookedFor(ticket) is { } bay ? BayMap.WarningOf(bay, seen) : null,
            step?.Gate.ComesWithTheRebuild() ?? false,
            unread && scanned?.Step != step?.Id, // after a first try both stand there already
            step?.Records == Records.Pulled,
            scanned,
            RunMonitor.Stop(ticket, now),
            HeardAt(ticket, sheet, run),
            known.Outdated,
            step is null || unread ? null : WhatFollows.Say(sheet, run, step), // what comes after a scan may say what should be read
            step is null ? null : ChapterPlace.Of(sheet, step),
            [.. ticket.Discrepancies.Where(d => d.IsOpen && (d.At >= run.Began || IsBeforeThePull(ticket, d))).Select(d => d.Sentence)],
            step is not null && LeadsNo.EndsHere(ticket, run, step)
        );
    }

    /// <summary>Somebody has been at the machine: that is read before a drive is pulled, whenever it was noticed.</summary>
    private static bool IsBeforeThePull(Ticket ticket, Discrepancy noticed) => noticed.About == MachineChanged.About && !ticket.HasMoved;

    /// <summary>The answer stands where it was asked for: at the call, and where the call led back to.</summary>
    private static HelpCall? HeardAt(Ticket ticket, RunSheet sheet, Run run) =>
        ticket.Help is { IsOpen: false } help
        && (
            help.AnsweredAt >= run.Since // also where the run went on before the answer came
            || (run.Visits.LastOrDefault() is { } last && sheet.Step(last.Step)?.Kind == StepKind.Call && last.At >= help.At)
        )
            ? help
            : null;

    /// <summary>A lead's no is not the engineer's to give: of a call they see the way on only.</summary>
    private static RunStep? OwnAnswers(RunStep? step) =>
        step is { Kind: StepKind.Call } && step.Leading(RunStep.Refused) is { } no
            ? step with
            {
                Answers = [.. step.Answers.Where(a => a != no)],
            }
            : step;

    /// <summary>What should be read is not shown before it was: neither in words, nor by the ends of serials in a drawing.</summary>
    private static RunStep Unread(RunStep step) => step with { See = null, Points = PointsAt.Nothing };

    /// <summary>Where a wrong drive went back is asked with the answer, where it may have been either of two bays.</summary>
    private static RunStep? AskedWhere(Ticket ticket, RunSheet sheet, RunStep? step) =>
        step is not null && WentBack.Possible(ticket, sheet, step) is { Count: > 0 } bays && step.Leading(RunStep.Done) is { } done
            ? step with
            {
                Points = PointsAt.Nothing,
                Answers =
                [
                    .. bays.Select(b => new StepAnswer($"bay {b}", $"It is back in bay {b}", done.Next)),
                    .. step.Answers.Where(a => a != done),
                ],
            }
            : step;

    /// <summary>The bay that is being looked for: after the pull it is known, and what was learnt of the map before matters no more.</summary>
    public static string? BayLookedFor(Ticket ticket) =>
        ticket is { Sheet: { } sheet, Run.Current: { } current, Swap.PulledAt: null }
        && sheet.Step(current) is { Points: PointsAt.Bay } step
            ? sheet.DriveOf(step).Bay
            : null;
}
