using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Waiting;

/// <summary>A lead allows or refuses to go on, in writing.</summary>
public sealed record HelpAnswered(bool GoAhead, string Reason) : DecisionBody
{
    public override string Told() => $"{(GoAhead ? "They may go on" : "They may not go on")}: {Reason}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        ticket.Help is not { IsOpen: true } ? "Nobody is waiting for an answer on this ticket."
        : string.IsNullOrWhiteSpace(Reason) ? "An answer has a reason; it is what the engineer goes by."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Help = ticket.Help is null
                ? null
                : ticket.Help with
                {
                    GoAhead = GoAhead,
                    Answer = Reason,
                    AnsweredBy = stamp.By,
                    AnsweredAt = stamp.At,
                },
        };
}
