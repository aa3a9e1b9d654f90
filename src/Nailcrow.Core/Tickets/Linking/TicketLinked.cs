using System.Text.Json.Serialization;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Linking;

/// <summary>What another ticket is to this one.</summary>
[JsonConverter(typeof(KebabEnum<LinkKind>))]
public enum LinkKind
{
    /// <summary>Both are done in one visit.</summary>
    SameVisit,

    /// <summary>The same thing came back; that one was before.</summary>
    RepeatOf,
    RepeatedBy,

    /// <summary>This one waits until that one is done.</summary>
    After,
    Before,

    /// <summary>One fault: this one ended, and what was known of it went over.</summary>
    JoinedTo,
    JoinedBy,
}

/// <summary>Another ticket that has to do with this one.</summary>
public sealed record TicketLink(long Ticket, LinkKind How, DateTimeOffset At, string By);

/// <summary>Two tickets have to do with each other. Both say so: the other one's entry is the service's.</summary>
public sealed record TicketLinked(long To, LinkKind How) : DecisionBody
{
    public override string Told() => $"{EntryTold.Said(Words.Of(How))} {TicketNumber.Text(To)}";

    public override bool MayFollowTheEnd() => true;

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        To == ticket.Number ? "A ticket has to do with itself anyway; name another one."
        : ticket.Links.Exists(l => l.Ticket == To && l.How == How) ? $"{Told()}: that is on record already."
        : actor.Name != Actor.Service.Name && How is not (LinkKind.SameVisit or LinkKind.RepeatOf or LinkKind.After)
            ? "That is said from the other ticket; here: same-visit, repeat-of, after."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket.Links.Exists(l => l.Ticket == To && l.How == How)
            ? ticket
            : ticket with
            {
                Links = ticket.Links.Add(new(To, How, stamp.At, stamp.By)),
            };

    /// <summary>The same as the other ticket says it.</summary>
    public TicketLinked FromThere(long here) =>
        new(
            here,
            How switch
            {
                LinkKind.RepeatOf => LinkKind.RepeatedBy,
                LinkKind.RepeatedBy => LinkKind.RepeatOf,
                LinkKind.After => LinkKind.Before,
                LinkKind.Before => LinkKind.After,
                LinkKind.JoinedTo => LinkKind.JoinedBy,
                LinkKind.JoinedBy => LinkKind.JoinedTo,
                _ => How,
            }
        );
}
