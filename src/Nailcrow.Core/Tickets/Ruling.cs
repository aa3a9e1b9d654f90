using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets;

/// <summary>Whether an intended entry may be written, or why not. Nothing is written while ruling.</summary>
public abstract record Ruling
{
    private Ruling() { }

    public sealed record Accepted : Ruling;

    /// <summary>Not a usable record whatever the plan says: a reading of 140 %, a bay that does not exist.</summary>
    public sealed record Unusable(string Reason) : Ruling;

    /// <summary>A decision that may not be taken now.</summary>
    public sealed record Refused(string Reason) : Ruling;

    public sealed record NotAllowed(string Reason) : Ruling;

    /// <summary>Facts pass if they are usable; decisions are also checked against the ticket as it stands.</summary>
    public static Ruling On(Ticket ticket, EntryBody intended, Actor actor, DateTimeOffset now)
    {
        if (!actor.MayActAs(intended.Writers()))
            return new NotAllowed($"{actor.Name} may not do this; it takes the role {string.Join(" or ", intended.Writers().Select(Words.Of))}.");
        if (ticket.Report is null && intended is not Intake.FaultReported)
            return new Refused($"{TicketNumber.Text(ticket.Number)} does not exist.");
        if (intended.Problem(ticket) is { } problem)
            return new Unusable(problem);
        if (intended is not DecisionBody decision)
            return new Accepted();
        if (ticket.IsEnded)
            return new Refused($"{TicketNumber.Text(ticket.Number)} is {Words.Of(ticket.Stage)}; nothing more is decided on it.");
        return decision.Refusal(ticket, actor, now) is { } reason ? new Refused(reason) : new Accepted();
    }
}
