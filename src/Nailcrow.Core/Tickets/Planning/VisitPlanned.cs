using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Planning;

/// <summary>When an engineer is expected there.</summary>
public sealed record PlannedVisit(DateTimeOffset From, DateTimeOffset To, string Engineer);

/// <summary>A visit is agreed. Planning another moves it; the engineer's calendar follows.</summary>
public sealed record VisitPlanned(DateTimeOffset From, DateTimeOffset To) : DecisionBody
{
    public override string Told() => $"Visit planned from {EntryTold.Clock(From)} to {EntryTold.Clock(To)}";

    // Longer is several visits.
    private static readonly TimeSpan Longest = TimeSpan.FromHours(24);

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Dispatcher, Role.Lead];

    public override string? Problem(Ticket ticket) =>
        To <= From ? "A visit ends after it begins."
        : To - From > Longest ? $"A visit of {(To - From).TotalHours:0} hours is more than one; at most {Longest.TotalHours:0}."
        : null;

    // Nobody's diary reaches further; a date beyond it is a slip of the finger.
    private static readonly TimeSpan Furthest = TimeSpan.FromDays(2 * 366);

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        To > now + Furthest ? $"A visit in {To.UtcDateTime:yyyy} is further off than two years; look at the date."
        : ticket.Engineer is null ? "Assign an engineer first; a visit is somebody's."
        : !actor.MayActAs([Role.Dispatcher, Role.Lead]) && ticket.Engineer != actor.Name
            ? $"{TicketNumber.Text(ticket.Number)} is with {ticket.Engineer}; a dispatcher plans it."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { Visit = new(From, To, ticket.Engineer ?? stamp.By) };
}
