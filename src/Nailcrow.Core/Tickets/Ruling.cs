using Nailcrow.Core.People;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;

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

    // A decision that is dated ahead would be ruled on for a moment that has not come; two minutes are a clock's.
    private static readonly TimeSpan AheadAtMost = TimeSpan.FromMinutes(2);

    /// <summary>
    /// Whether what somebody sent may be written at all, and then as <see cref="On(Ticket, EntryBody, Actor, DateTimeOffset)"/>
    /// says.
    /// </summary>
    public static Ruling On(Ticket ticket, Intent intent, DateTimeOffset now)
    {
        if (intent.FromOutside && intent.Body.ByServiceOnly() is { } instead)
            return new NotAllowed(instead);
        if (intent.FromOutside && MachineWords.WhyNot(intent.Body) is { } notTheirs)
            return new NotAllowed(notTheirs);
        if (intent.Happened < ServiceClock.Earliest)
            return new Unusable(
                $"It says it happened at {intent.Happened.UtcDateTime:yyyy-MM-dd HH:mm} UTC; nothing here is older "
                    + $"than {ServiceClock.Earliest.Year}. Set the device's clock."
            );
        if (intent.Body is DecisionBody && intent.Happened > now + AheadAtMost)
            return new Unusable(
                $"It is dated {intent.Happened.UtcDateTime:yyyy-MM-dd HH:mm} UTC, which is still to come; a decision is taken now. Set the device's clock."
            );
        if (intent.Body is DecisionBody decided && decided.NotThen(intent.Happened) is { } never)
            return new Unusable(never);
        return On(ticket, intent.Body, intent.Actor, now, intent.Written().Passes);
    }

    /// <summary>
    /// The same for what is ruled by the record and not by the ticket alone: whether an entry of it may be put right, whether there is
    /// a paper.
    /// </summary>
    public static Ruling On(TicketRecord record, Intent intent, DateTimeOffset now) =>
        On(record.Ticket, intent, now) is var ruling && ruling is Accepted && ByTheRecord(record, intent, now) is { } reason
            ? new Refused(reason)
            : ruling;

    private static string? ByTheRecord(TicketRecord record, Intent intent, DateTimeOffset now) =>
        intent.Body switch
        {
            EntryCorrected correction => Correctable.Refusal(record, intent, correction, now),
            PictureRemoved removed => PictureRemoved.WhyNot(record, removed.Photo),
            PaperMailed mailed => TicketPapers.WhyNot(record, mailed.Paper, mailed.About),
            _ => null,
        };

    internal static string TakesRole(Actor actor, IReadOnlyCollection<Role> writers) =>
        $"{actor.Name} may not do this; it takes the role {string.Join(" or ", writers.Select(Words.Of))}.";

    /// <summary>Facts pass if they are usable; decisions are also checked against the ticket as it stands.</summary>
    public static Ruling On(Ticket ticket, EntryBody intended, Actor actor, DateTimeOffset now) =>
        On(ticket, intended, actor, now, Bounds.Problem(intended));

    private static Ruling On(Ticket ticket, EntryBody intended, Actor actor, DateTimeOffset now, string? passes)
    {
        if (!actor.MayActAs(intended.Writers()))
            return new NotAllowed(TakesRole(actor, intended.Writers()));
        if (ticket.Report is null && intended is not Intake.FaultReported)
            return new Refused($"{TicketNumber.Text(ticket.Number)} does not exist.");
        // A sheet is the service's own, and as long as its procedure is.
        if (intended.ByServiceOnly() is null && passes is not null)
            return new Unusable(passes);
        if (intended.Problem(ticket) is { } problem)
            return new Unusable(problem);
        if (intended is not DecisionBody decision)
            return new Accepted();
        if (ticket.IsEnded && !decision.MayFollowTheEnd())
            return new Refused($"{TicketNumber.Text(ticket.Number)} is {Words.Of(ticket.Stage)}; nothing more is decided on it.");
        return decision.Refusal(ticket, actor, now) is { } reason ? new Refused(reason) : new Accepted();
    }
}
