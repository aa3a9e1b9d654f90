using System.Text.Json.Serialization;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Ending;

/// <summary>Ways to close a ticket whose array is not whole, by a lead and in writing.</summary>
[JsonConverter(typeof(KebabEnum<ClosedOtherwise>))]
public enum ClosedOtherwise
{
    HandedOver,
    DataLost,
    MonitoredByCustomer,
}

public sealed record TicketClosed(ClosedOtherwise? Otherwise = null, string? Reason = null) : DecisionBody
{
    public override string Told() => Otherwise is { } way ? $"Closed, {EntryTold.Said(Words.Of(way))}: {Reason}" : "Closed";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Dispatcher, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now)
    {
        if (Otherwise is not null && !actor.MayActAs([Role.Lead]))
            return $"Closing as {Words.Of(Otherwise.Value)} takes a lead.";
        if (Otherwise is not null && string.IsNullOrWhiteSpace(Reason))
            return "Closing a ticket otherwise than whole takes a reason in writing.";
        var unmet = ClosingCondition.Of(ticket).Where(c => !c.Met && (Otherwise is null || !c.LeadMayWaive)).ToList();
        return unmet.Count == 0 ? null : $"Not yet: {string.Join(" ", unmet.Select(c => $"{c.Name}: {c.Sentence}"))}";
    }

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        LateFact.LeftBehind(ticket with { Closing = this, EndedAt = stamp.At }, stamp);
}
