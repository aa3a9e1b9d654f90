using System.Text.Json.Serialization;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>Whose turn it is on a ticket, from where one person stands.</summary>
[JsonConverter(typeof(KebabEnum<Turn>))]
public enum Turn
{
    /// <summary>It waits for this person, by name or by a role that they have.</summary>
    Yours,

    /// <summary>Nobody has it; whoever may can take it or give it to somebody.</summary>
    Anybodys,

    /// <summary>It is with somebody else, or on hold.</summary>
    Others,
}

public static class Turns
{
    public static Turn Of(TicketLine line, Actor actor) =>
        line.HoldReason is not null ? Turn.Others
        : line.Next.Who == actor.Name ? Turn.Yours
        : line.Next.Who == Words.Of(Role.Dispatcher) ? Turn.Anybodys
        : actor.Roles.Any(role => Words.Of(role) == line.Next.Who) ? Turn.Yours
        : Turn.Others;
}
