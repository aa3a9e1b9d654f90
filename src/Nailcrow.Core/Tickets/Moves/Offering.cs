using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>Who asks what may be done, of which ticket and when. Whether they may is asked of the rule that would refuse it.</summary>
internal sealed record Offering(Ticket Ticket, Actor Actor, DateTimeOffset Now, Surroundings Known)
{
    /// <param name="empty">The body that the fields are written into.</param>
    /// <param name="filled">The same with something in every field: what its rule is asked with.</param>
    /// <param name="notNow">What stands against it that no rule of the journal's refuses: facts are never refused, and still not offered out of turn.</param>
    public OfferedMove Entry(
        Move move,
        string say,
        EntryBody empty,
        EntryBody filled,
        IReadOnlyList<MoveField>? fields = null,
        string? about = null,
        string? notNow = null
    ) => new(move, say, Refused(filled) ?? notNow, MoveWay.Entry, empty, fields ?? [], about);

    public OfferedMove Entry(Move move, string say, EntryBody body, string? about = null, string? notNow = null) =>
        Entry(move, say, body, body, null, about, notNow);

    /// <summary>What the journal would say to this from this person now; null where it would be taken.</summary>
    public string? Refused(EntryBody filled) =>
        Ruling.On(Ticket, filled, Actor, Now) switch
        {
            Ruling.Accepted => null,
            Ruling.NotAllowed(var reason) => reason,
            Ruling.Refused(var reason) => reason,
            Ruling.Unusable(var reason) => reason,
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    /// <summary>Whose word it takes, where there is no body yet to ask the rule with: the service makes it at the machine.</summary>
    public string? NotTheirRole(IReadOnlyCollection<Role> writers) => Actor.MayActAs(writers) ? null : Ruling.TakesRole(Actor, writers);

    /// <summary>Work at the machine is its engineer's, or a lead's; somebody else takes the ticket first.</summary>
    public string? NotTheirs() =>
        Ticket.IsEnded ? $"{TicketNumber.Text(Ticket.Number)} is {Terms.Words.Of(Ticket.Stage)}."
        : Ticket.Engineer == Actor.Name || Actor.MayActAs([Role.Lead]) ? null
        : Ticket.Engineer is { } other
            ? $"{TicketNumber.Text(Ticket.Number)} is with {other}; a dispatcher or a lead gives it to somebody else."
        : "Nobody is assigned yet; somebody takes it first.";

    public string? NotReached() => Known.Reachable ? null : "The service does not reach this machine; type what its screen shows.";

    public static MoveField Sentence(string name, string label) => new(name, label, FieldKind.Lines, Most: 4_000);

    // Something that any text field takes, for asking a rule about everything but the wording.
    public const string Some = "x";
}
