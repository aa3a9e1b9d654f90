using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Core.Tickets.Ending;

/// <summary>Ways to close a ticket whose array is not whole, by a lead and in writing.</summary>
[JsonConverter(typeof(KebabEnum<ClosedOtherwise>))]
public enum ClosedOtherwise
{
    HandedOver,
    DataLost,
    MonitoredByCustomer,

    /// <summary>There was nothing to swap: a cable, a lamp, a false alarm. Where nothing was moved and the machine is whole, an engineer says so.</summary>
    NothingToSwap,
}

public sealed record TicketClosed(ClosedOtherwise? Otherwise = null, string? Reason = null) : DecisionBody
{
    public override string Told() => Otherwise is { } way ? $"Closed, {EntryTold.Said(Words.Of(way))}: {Reason}" : "Closed";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Dispatcher, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now)
    {
        if (Otherwise is not null && !actor.MayActAs([Role.Lead]) && NotAnEngineers(ticket) is { } no)
            return no;
        if (Otherwise is not null && string.IsNullOrWhiteSpace(Reason))
            return "Closing a ticket otherwise than whole takes a reason in writing.";
        var unmet = ClosingCondition.Of(ticket).Where(c => !c.Met && (Otherwise is null || !c.LeadMayWaive)).ToList();
        return unmet.Count == 0 ? null : $"Not yet: {string.Join(" ", unmet.Select(c => $"{c.Name}: {c.Sentence}"))}";
    }

    /// <summary>Why this end takes a lead's word; null where whoever was there may say it.</summary>
    private string? NotAnEngineers(Ticket ticket) =>
        Otherwise != ClosedOtherwise.NothingToSwap ? $"Closing as {Words.Of(Otherwise ?? default)} takes a lead."
        : ticket.HasMoved ? "A drive was moved; that there was nothing to swap takes a lead."
        : ticket.Latest is not { } latest || latest.TakenAt < ticket.ReceivedAt
            ? "Nobody has looked at the machine since the report; take a snapshot first."
        : latest.Arrays.Count == 0
        || latest.Arrays.Any(a => !latest.IsWhole(a))
        || latest.Bays.Any(b => b.Role == BayRole.Dropped || b.Health == DriveHealth.Faulted)
            ? "By the last look the machine is not whole, or a drive of it has failed; that there is nothing to swap takes a lead."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        LateFact.LeftBehind(SiteVisits.Ended(ticket, _ => true, null, VisitEnd.NotSaid) with { Closing = this, EndedAt = stamp.At }, stamp);
}
