using System.Text.Json.Serialization;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Waiting;

/// <summary>What a ticket on hold waits for. Waiting for the customer or for access stops the promise's clocks; for a part it does not.</summary>
[JsonConverter(typeof(KebabEnum<WaitsFor>))]
public enum WaitsFor
{
    Customer,
    Access,
    Part,
    Other,
}

/// <summary>A stretch on hold.</summary>
/// <param name="Stops">Whether the promise's clocks stood still.</param>
public sealed record Hold(DateTimeOffset From, DateTimeOffset? To, bool Stops);

/// <param name="Until">When it is looked at again, such as the window that was agreed; null where nobody knows.</param>
public sealed record PutOnHold(string Reason, WaitsFor WaitsFor = WaitsFor.Other, DateTimeOffset? Until = null) : DecisionBody
{
    public override string Told() =>
        $"Put on hold: {Reason}{(WaitsFor == WaitsFor.Other ? "" : $" (waits for {Words.Of(WaitsFor)})")}"
        + $"{(Until is { } until ? $", until {EntryTold.Clock(until)}" : "")}";

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        string.IsNullOrWhiteSpace(Reason) ? "Say why the ticket is on hold; whoever looks next needs to know what it waits for."
        : ticket.HoldReason is { } reason ? $"Already on hold: {reason}"
        : Until <= now ? $"It cannot wait until {EntryTold.Clock(Until.Value)}, which is over."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            HoldReason = Reason,
            HoldUntil = Until,
            Holds = ticket.Holds.Add(new(stamp.At, null, WaitsFor is WaitsFor.Customer or WaitsFor.Access)),
        };
}
