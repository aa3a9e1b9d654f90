using System.Collections.Immutable;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following.Answering;

/// <summary>A run sheet was made for this ticket. It is kept whole, so the record shows what the engineer was told to do.</summary>
/// <param name="Replaces">The sheet it takes the place of; null where it begins a run.</param>
/// <param name="Because">Why somebody left the other sheet for this one; null where what that one was made for is no longer so.</param>
public sealed record SheetCompiled(RunSheet Sheet, Guid? Replaces = null, string? Because = null) : DecisionBody
{
    public override string Told() =>
        Because is { } why
            ? $"Went over to the run sheet {Sheet.Title}, bay {Sheet.TargetBay}: {why}"
            : $"Run sheet made{(Replaces is null ? "" : " for what is so now")}: {Sheet.Title}, bay {Sheet.TargetBay}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Lead];

    public override string? ByServiceOnly() =>
        "A run sheet is made by the service, from a procedure that is published and proved: POST /api/tickets/{number}/sheet, or 'nailcrow run start'.";

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        Replaces is not { } replaced ? NotNow(ticket, Sheet.IsRecovery)
        : ticket.Sheet?.Id != replaced ? "The run has gone on meanwhile; look at it again."
        : Because is null ? WhyNotReplaced(ticket)
        : WhyNotLeftFor(Sheet, ticket, now);

    /// <summary>A run whose new drive is not in use may go on on another sheet; with a wrong drive out, that one goes back first.</summary>
    public static bool MayBeReplaced(Ticket ticket) => WhyNotReplaced(ticket) is null;

    /// <summary>Why the run goes on on this sheet and no other; null where it may be left for another.</summary>
    public static string? WhyNotReplaced(Ticket ticket) =>
        ticket is not { Sheet: { } sheet, Run.IsFinished: false } ? "No run is under way."
        : sheet.IsRecovery || ticket.Interrupted.Count > 0
            ? "A recovery is under way; finish it, and the sheet that was interrupted goes on."
        : ticket.EarlierSwaps.Count > 0 ? "One of its drives is swapped already; the rest is done on this sheet."
        : ticket.Swap.WrongOut is { } wrong ? $"{wrong} is out, a wrong drive; it goes back first."
        : ticket.Swap.InSerial is null || IsWholeWithoutTheNewDrive(ticket) || IsSeatedInVain(ticket) ? null
        : $"{ticket.Swap.InSerial} is in; what is left to do is on this sheet.";

    /// <summary>Why the run cannot go over to another sheet as things are; null where it can.</summary>
    public static string? WhyNotLeftFor(RunSheet other, Ticket ticket, DateTimeOffset now)
    {
        if (WhyNotReplaced(ticket) is { } no)
            return no;
        if (ticket is not { Sheet: { } sheet, Run: { } run })
            return null;
        ImmutableList<Interrupted> runs = [.. ticket.LeftSheets, new(sheet, run)];
        var open = OpenThings.After(runs).Except(other.Steps.Select(s => s.ClosesThing())).ToList();
        if (open.Count > 0)
            return $"{string.Join(" and ", open)} {(open.Count == 1 ? "is" : "are")} not put right, and '{other.Title}' does not do it; this sheet does.";
        return
            CarriedOver.IsOut(runs[^1]) && !CarriedOver.IsPastThePull(other, CarriedOver.Onto(ticket, other, runs, now, pullsAnew: false))
            ? $"A drive is out, and '{other.Title}' takes drives out in another way; this sheet goes on from here."
            : null;
    }

    /// <summary>The drive that came out went back to be taken in again, and the machine does not see it, or it has failed by its own word.</summary>
    public static bool IsSeatedInVain(Ticket ticket) =>
        ticket is { Latest: { } now, Swap: { InSerial: { } serial, OutSerial: { } old } }
        && serial == old
        && now.TakenAt > ticket.Swap.InsertedAt
        && now.Holding(serial) is null or { Health: DriveHealth.Faulted };

    /// <summary>Something else was rebuilt onto meanwhile: what was put in is to be the spare.</summary>
    public static bool IsWholeWithoutTheNewDrive(Ticket ticket) =>
        ticket.Latest is { } now
        && now.TakenAt > ticket.Swap.InsertedAt
        && now.Holding(ticket.Swap.InSerial) is { Role: BayRole.Unclaimed or BayRole.Spare }
        && now.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array) is { } array
        && now.IsWhole(array);

    /// <summary>Why no sheet is started now, whichever it would be; null where one may be.</summary>
    public static string? NotNow(Ticket ticket, bool isRecovery) =>
        isRecovery
            ? ticket.Interrupted.Count > 0
                ? "A sheet is interrupted already; finish the recovery first."
                : null
            : ticket.Interrupted.Count > 0
                ? "A recovery is under way; finish it, and the sheet that was interrupted goes on."
                : ticket.Run is { IsFinished: false, Visits.Count: > 0 }
                    ? "A run is under way; finish it, or call for help on it."
                    : ticket.Swap.InSerial is not null && ticket.Run is not { HandedOver: true }
                        ? "The swap on this ticket is done; a further drive gets a ticket of its own."
                        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        // Its bay is as it was before: it comes out once more, and that is the swap.
        var isVain = Replaces is not null && IsSeatedInVain(ticket);
        if (isVain)
            ticket = ticket with { SeatedInVain = ticket.SeatedInVain.Add(ticket.Swap), Swap = ticket.Swap.AsBefore() };
        var left =
            Replaces is not null && ticket is { Sheet: { } old, Run: { } done } && old.Id == Replaces ? new Interrupted(old, done) : null;
        return ticket with
        {
            Sheet = Sheet,
            Run = left is null
                ? Run.Begin(Sheet, stamp.At)
                : CarriedOver.Onto(ticket, Sheet, [.. ticket.LeftSheets, left], stamp.At, pullsAnew: isVain),
            LeftSheets =
                left is not null ? ticket.LeftSheets.Add(left)
                : Sheet.IsRecovery ? ticket.LeftSheets
                : [], // a run that begins anew is done anew
            Interrupted =
                Replaces is null && Sheet.IsRecovery && ticket is { Sheet: { } other, Run: { } run } && !(run.IsFinished && !run.HandedOver)
                    ? ticket.Interrupted.Add(new(other, run))
                    : ticket.Interrupted,
        };
    }
}
