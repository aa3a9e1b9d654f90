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

/// <summary>By whom a ticket can wait, from where one person stands: what is not on hold is theirs, anybody's or with others by these names.</summary>
/// <param name="Yours">This person's name, and the roles they have.</param>
/// <param name="Anybodys">Who gives out what nobody has.</param>
public sealed record TurnNames(IReadOnlyList<string> Yours, IReadOnlyList<string> Anybodys)
{
    public static TurnNames Of(Actor actor)
    {
        string[] anybodys = [Words.Of(Role.Dispatcher)];
        return new([.. actor.Roles.Select(role => Words.Of(role)).Prepend(actor.Name).Except(anybodys)], anybodys);
    }
}

public static class Turns
{
    public static Turn Of(TicketLine line, Actor actor) => Of(line, TurnNames.Of(actor));

    public static Turn Of(TicketLine line, TurnNames names) =>
        line.HoldReason is not null ? Turn.Others
        : names.Yours.Contains(line.Next.Who) ? Turn.Yours
        : names.Anybodys.Contains(line.Next.Who) ? Turn.Anybodys
        : Turn.Others;
}
