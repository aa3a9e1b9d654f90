using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Planning;

/// <summary>Who goes there. An engineer may take a ticket; only a dispatcher or a lead may give it to somebody else.</summary>
public sealed record EngineerAssigned(string Engineer) : DecisionBody
{
    public override string Told() => $"Assigned to {Engineer}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Dispatcher, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        WhyNot(ticket.Number, ticket.Engineer, Engineer, actor);

    /// <summary>Why this person may not give a ticket that <paramref name="holder"/> has to an engineer; null where they may.</summary>
    public static string? WhyNot(long number, string? holder, string engineer, Actor actor) =>
        engineer == actor.Name && !actor.Roles.Contains(Role.Engineer) ? $"You are no engineer, {actor.Name}; give it to one."
        : actor.MayActAs([Role.Dispatcher, Role.Lead]) ? null
        : engineer != actor.Name ? $"Only a dispatcher or a lead gives a ticket to somebody else; take it yourself as {actor.Name}."
        : holder is { } taken && taken != actor.Name ? $"{TicketNumber.Text(number)} is with {taken}; ask a dispatcher to move it."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { Engineer = Engineer };
}
