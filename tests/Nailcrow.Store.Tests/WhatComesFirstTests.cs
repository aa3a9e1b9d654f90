using System.Globalization;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tests;

/// <summary>Who sees what first: the pages that indexes give are held against all tickets sorted by what each of them scores.</summary>
public sealed class WhatComesFirstTests(TicketsOfAllKinds made) : IClassFixture<TicketsOfAllKinds>
{
    private static readonly Actor Ilka = new("ilka", [Role.Engineer, Role.Stores]);
    private static readonly Actor Dorrik = new("dorrik", [Role.Dispatcher]);

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private TicketLines Lines => made.Store.Get<TicketLines>();

    [Theory]
    [InlineData(7, true)]
    [InlineData(50, true)]
    [InlineData(1_000, true)]
    [InlineData(13, null)]
    public async Task Page_after_page_the_worst_come_first_and_none_is_left_out_or_told_twice(int most, bool? open)
    {
        var told = new List<long>();
        for (var page = -1; page != 0; )
        {
            var found = await Lines.FindAsync(new(Ended: !open, Order: TicketOrder.Worst, Skip: told.Count, Limit: most), Ct);
            told.AddRange(found.Select(l => l.Number));
            page = found.Count;
        }

        told.ShouldBe(Sorted(made.All.Where(t => open is null || !t.Ended)).Select(t => t.Number));
    }

    [Fact]
    public async Task What_is_over_comes_last_and_by_itself_only_when_asked_for()
    {
        var ended = await Lines.FindAsync(new(Ended: true, Order: TicketOrder.Worst, Limit: 1_000), Ct);

        ended.Count.ShouldBe(made.All.Count(t => t.Ended));
        ended.Select(l => l.Number).ShouldBeSubsetOf(made.All.Where(t => t.Ended).Select(t => t.Number));
    }

    [Fact]
    public async Task Narrowed_lists_keep_that_order()
    {
        var found = await Lines.FindAsync(new(Ended: false, Engineer: "ilka", Order: TicketOrder.Worst, Skip: 3, Limit: 20), Ct);

        var expected = Sorted(made.All.Where(t => !t.Ended && t.Line.Engineer == "ilka")).Skip(3).Take(20);
        found.Select(l => l.Number).ShouldBe(expected.Select(t => t.Number));
    }

    [Fact]
    public async Task Each_sees_what_waits_for_them_by_name_or_role_what_waits_for_anybody_and_the_rest_with_others()
    {
        foreach (var actor in new[] { Ilka, Dorrik })
        {
            var groups = await Lines.WaitingAsync(actor, most: 9, counted: 1_001, Ct);

            groups.Select(g => g.Turn).ShouldBe([Turn.Yours, Turn.Anybodys, Turn.Others]);
            foreach (var group in groups)
            {
                var theirs = Sorted(made.All.Where(t => !t.Ended && Turns.Of(t.Line, actor) == group.Turn)).ToList();
                group.Count.ShouldBe(theirs.Count, $"{actor.Name}, {group.Turn}");
                group.Tickets.Select(l => l.Number).ShouldBe(theirs.Take(9).Select(t => t.Number), $"{actor.Name}, {group.Turn}");
            }
            groups.Sum(g => g.Count).ShouldBe(made.All.Count(t => !t.Ended));
        }
    }

    [Fact]
    public async Task What_waits_for_a_name_is_theirs_what_waits_for_a_dispatcher_anybodys_and_what_is_on_hold_nobodys()
    {
        var ilka = await Lines.WaitingAsync(Ilka, most: 1_000, counted: 1_001, Ct);

        ilka[0].Tickets.Select(t => t.Next.Who).Distinct().ShouldBe(["ilka", "engineer", "stores"], ignoreOrder: true);
        ilka[1].Tickets.Select(t => t.Next.Who).Distinct().ShouldBe(["dispatcher"]);
        ilka.Take(2).SelectMany(g => g.Tickets).ShouldAllBe(t => t.HoldReason == null);
        (await Lines.WaitingAsync(Dorrik, most: 1, counted: 1_001, Ct))[0].Count.ShouldBe(0); // nobody waits for dorrik by name
    }

    [Fact]
    public async Task What_each_engineer_has_open_is_counted_by_site_and_so_are_visits_to_come()
    {
        var loads = await Lines.LoadsAsync(["ilka", "tamsel", "nobody-else"], Ct);

        foreach (var engineer in new[] { "ilka", "tamsel" })
        {
            var theirs = made.All.Where(t => !t.Ended && t.Line.Engineer == engineer).ToList();
            loads.Where(l => l.Engineer == engineer).Sum(l => l.Open).ShouldBe(theirs.Count);
        }
        loads.ShouldNotContain(l => l.Engineer == "nobody-else");
    }

    // Sorted in memory by the score of each line; nothing is cut into parts here.
    private static IEnumerable<(long Number, bool Ended, TicketLine Line)> Sorted(
        IEnumerable<(long Number, bool Ended, TicketLine Line)> tickets
    ) =>
        tickets
            .OrderBy(t => t.Ended)
            .ThenByDescending(t => t.Ended ? 0 : Priority.Of(t.Line, TicketsOfAllKinds.Now).Score)
            .ThenBy(t => t.Ended ? 0 : DangerAlone(t.Line))
            .ThenBy(t => t.Line.DueAt ?? DateTimeOffset.MaxValue)
            .ThenBy(t => t.Number);

    // Of two that score alike the one in greater danger comes first: it got its score without a promise.
    private static int DangerAlone(TicketLine line) => -Priority.Of(line with { DueAt = null, Due = null }, TicketsOfAllKinds.Now).Score;
}

/// <summary>Some hundred tickets of every danger, promise, holder and state, for all tests of the class.</summary>
public sealed class TicketsOfAllKinds : IAsyncLifetime
{
    private const int Tickets = 400;

    private static readonly string[] Whose = ["ilka", "engineer", "stores", "dispatcher", "tamsel", "lead", "customer"];
    private static readonly int?[] Hours = [null, -300, -1, 1, 3, 5, 23, 25, 400];

    public static readonly DateTimeOffset Now = new(2031, 3, 4, 12, 0, 0, TimeSpan.Zero);

    public StoreInUse Store { get; } = new() { At = Now };

    public List<(long Number, bool Ended, TicketLine Line)> All { get; } = [];

    public async ValueTask InitializeAsync()
    {
        await Store.InitializeAsync();
        var random = new Random(20_310_304);
        foreach (var some in Enumerable.Range(0, Tickets).Chunk(100))
        foreach (
            var number in await Task.WhenAll(
                some.Select(i => Store.OpenAsync(StoreInUse.Fault(serial: $"S{i:000}", asset: $"FSC-{i:0000}")))
            )
        )
            Make(number, random);
    }

    public async ValueTask DisposeAsync() => await Store.DisposeAsync();

    private void Make(long number, Random random)
    {
        int? margin = random.Next(6) switch
        {
            0 => null,
            1 => -1,
            var left => left - 2,
        };
        var worst = margin is { } known && random.Next(3) == 0 ? known - 2 : margin;
        var help = random.Next(12) == 0 ? SwapHelp.TooManyLost : SwapHelp.Helps;
        var hold = random.Next(6) == 0 ? "Waits for a part" : null;
        var ended = random.Next(8) == 0;
        // Minutes differ, so that few are due at one moment; some are, and then the older comes first.
        var due = Hours[random.Next(Hours.Length)] is { } hours ? Now.AddHours(hours).AddMinutes(random.Next(20)) : (DateTimeOffset?)null;
        var who = Whose[random.Next(Whose.Length)];
        var engineer = random.Next(3) switch
        {
            0 => "ilka",
            1 => "tamsel",
            _ => null,
        };
        var line = new TicketLine(
            number,
            "FSC",
            "B12",
            "Corrin",
            "Corrin",
            "Lamp",
            "2",
            null,
            Stage.Received,
            margin,
            "",
            engineer,
            new(who, "", Move.Take),
            hold,
            false,
            Now,
            Now,
            worst,
            help,
            due,
            due is null ? null : DeadlineKind.Respond
        );
        All.Add((number, ended, line));
        var weight = Priority.Weight(ended, hold is not null, help, margin, worst);
        var dueOrder = (due ?? DateTimeOffset.MaxValue).UtcTicks;
        Store.Tamper(
            string.Create(
                CultureInfo.InvariantCulture,
                $"""
                update ticket_line set ended = {(ended ? "true" : "false")}, urgency = {weight}, due_order = {dueOrder}, next_who = '{who}',
                  hold_reason = {Quoted(hold)}, engineer = {Quoted(engineer)}, margin = {margin?.ToString(CultureInfo.InvariantCulture)
                    ?? "null"},
                  at_worst = {worst?.ToString(CultureInfo.InvariantCulture) ?? "null"}, help = '{help}' where number = {number}
                """
            )
        );
    }

    private static string Quoted(string? text) => text is null ? "null" : $"'{text}'";
}
