using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Ending;

/// <summary>A ticket that was closed or cancelled is work again, and why.</summary>
public sealed record Reopening(string Reason, DateTimeOffset At, string By);

/// <summary>What came in after the end shows that it was none: the ticket is open again. What ended it stays in the journal.</summary>
public sealed record TicketReopened(string Reason) : DecisionBody
{
    public override string Told() => $"Open again: {Reason}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Lead];

    public override bool MayFollowTheEnd() => true;

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        !ticket.IsEnded ? $"{TicketNumber.Text(ticket.Number)} is open; there is nothing to reopen."
        : string.IsNullOrWhiteSpace(Reason) ? "Reopening takes a reason; whoever closed it reads it first."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Closing = null,
            Cancelling = null,
            EndedAt = null,
            Reopenings = ticket.Reopenings.Add(new(Reason, stamp.At, stamp.By)),
        };
}
