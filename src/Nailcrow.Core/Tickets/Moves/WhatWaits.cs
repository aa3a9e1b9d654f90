using Nailcrow.Core.People;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>The open tickets of one turn, as far as they were asked for.</summary>
/// <param name="Count">How many there are in all.</param>
/// <param name="Tickets">The worst first.</param>
public sealed record WaitingGroup(Turn Turn, int Count, IReadOnlyList<TicketLine> Tickets);

/// <summary>What waits for a person, for anybody, and what is with others, each the worst first.</summary>
public static class WhatWaits
{
    /// <param name="open">All open tickets.</param>
    /// <param name="most">How many of each are told.</param>
    public static IReadOnlyList<WaitingGroup> For(Actor actor, IEnumerable<TicketLine> open, int most)
    {
        var turns = open.ToLookup(line => Turns.Of(line, actor));
        return
        [
            .. Enum.GetValues<Turn>()
                .Select(turn => new WaitingGroup(
                    turn,
                    turns[turn].Count(),
                    [.. turns[turn].OrderBy(Urgency).ThenBy(line => line.Number).Take(most)]
                )),
        ];
    }

    private static double Urgency(TicketLine line) => Urgency(line.Margin);

    /// <summary>The less can still be lost, the sooner; what nobody has looked at is worse than what has margin left.</summary>
    public static double Urgency(int? margin) => margin ?? NotLookedAt;

    /// <summary>Where a ticket whose margin nobody knows stands among those with one: after none left, before one.</summary>
    public const double NotLookedAt = 0.5;
}
