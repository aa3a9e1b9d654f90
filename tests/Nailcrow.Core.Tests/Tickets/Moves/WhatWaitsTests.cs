using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Core.Tests.Tickets.Moves;

/// <summary>Who sees what first.</summary>
public class WhatWaitsTests
{
    private static TicketLine Line(long number, int? margin, string who = "ilka", string? hold = null) =>
        new(
            number,
            "FSC-1",
            "B12",
            "Corrin",
            "Corrin",
            "Lamp",
            null,
            null,
            Stage.Received,
            margin,
            "",
            null,
            new(who, "Go on.", Move.Take),
            hold,
            false,
            Some.Noon,
            Some.Noon
        );

    [Fact]
    public void What_waits_for_me_comes_first_and_in_each_group_the_worst_and_what_is_not_known_before_what_is_safe()
    {
        TicketLine[] open =
        [
            Line(1, 2),
            Line(2, 0),
            Line(3, null),
            Line(4, 1, "dispatcher"),
            Line(5, -1, "tamsel"),
            Line(6, -1, hold: "waits for a part"),
            Line(7, 1, "engineer"),
        ];

        var groups = WhatWaits.For(Played.Ilka, open, most: 3);

        groups.Select(g => (g.Turn, g.Count)).ShouldBe([(Turn.Yours, 4), (Turn.Anybodys, 1), (Turn.Others, 2)]);
        groups[0].Tickets.Select(t => t.Number).ShouldBe([2, 3, 7]);
        groups[2].Tickets.Select(t => t.Number).ShouldBe([5, 6]);
    }

    [Fact]
    public void However_many_newer_ones_there_are_the_oldest_and_most_dangerous_one_is_on_the_first_page()
    {
        var open = Enumerable.Range(2, 5_000).Select(n => Line(n, 2)).Prepend(Line(1, 0));

        WhatWaits.For(Played.Ilka, open, most: 50)[0].Tickets[0].Number.ShouldBe(1);
    }
}
