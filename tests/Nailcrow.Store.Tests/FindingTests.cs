using Nailcrow.Core.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tests;

/// <summary>A ticket is found by any part of what it is about, old or new, and nothing else is: held against plain comparing.</summary>
public sealed class FindingTests(FoundTickets found) : IClassFixture<FoundTickets>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("deep arch")]
    [InlineData("ærø")]
    [InlineData("\"Station\"")]
    [InlineData("AND")]
    [InlineData("50% n")]
    [InlineData("h*")]
    [InlineData("Tide_W")]
    [InlineData("00042")]
    [InlineData("SER000")]
    [InlineData("f")]
    [InlineData("a\nb")]
    [InlineData("rust\nC")]
    [InlineData("NEAR(deep archive)")]
    [InlineData("-00")]
    [InlineData("nowhere at all")]
    public async Task Any_part_of_an_asset_a_serial_a_site_or_a_customer_finds_just_the_tickets_that_have_it(string part)
    {
        var wanted = found
            .All.Where(t => t.Told.Any(w => w.Contains(part, StringComparison.OrdinalIgnoreCase)))
            .Select(t => t.Number)
            .OrderDescending()
            .ToList();

        (await FoundAsync(new(Find: part, Limit: 2 * FoundTickets.Tickets))).SequenceEqual(wanted).ShouldBeTrue();
        (await FoundAsync(new(Find: part, Limit: 5))).ShouldBe(wanted.Take(5));
        (await FoundAsync(new(Find: part, Limit: 2 * FoundTickets.Tickets, Ended: false, Before: 1_500))).ShouldBe(
            wanted.Where(n => n < 1_500)
        );
        (await FoundAsync(new(Find: part, Limit: 2 * FoundTickets.Tickets, Order: TicketOrder.Worst)))
            .Order()
            .SequenceEqual(wanted.Order())
            .ShouldBeTrue();
        (await found.Store.Get<TicketLines>().CountAsync(new(Find: part), 10_000, Ct)).ShouldBe(wanted.Count);
    }

    [Fact]
    public async Task What_a_ticket_is_found_by_follows_it_and_can_be_gathered_anew()
    {
        StoreInUse.IsAboutTheFile();
        var own = await found.Store.OpenAsync(StoreInUse.Fault(serial: "OWN77X", asset: "QQ-77"));
        (await FoundAsync(new(Find: "wn77x"))).ShouldBe([own]);

        found.Store.Tamper("insert into ticket_part (ticket_part) values ('delete-all')");
        (await FoundAsync(new(Find: "wn77x"))).ShouldBeEmpty();
        await found.Store.Get<Projections>().RebuildAsync(Ct);
        (await FoundAsync(new(Find: "wn77x"))).ShouldBe([own]);

        found.Store.Tamper($"update ticket_line set serial = 'OTHER78' where number = {own}");
        (await FoundAsync(new(Find: "wn77x"))).ShouldBeEmpty();
        (await FoundAsync(new(Find: "her78"))).ShouldBe([own]);
        found.Store.Tamper($"delete from ticket_line where number = {own}");
        (await FoundAsync(new(Find: "her78"))).ShouldBeEmpty();
    }

    private async Task<IEnumerable<long>> FoundAsync(TicketSearch search) =>
        (await found.Store.Get<TicketLines>().FindAsync(search, Ct)).Select(l => l.Number);
}

/// <summary>Many tickets of few sites and customers, for all tests of the class.</summary>
public sealed class FoundTickets : IAsyncLifetime
{
    // More than are looked through from the newest back before all are asked.
    public const int Tickets = 1_150;

    private static readonly string[] Sites = ["Corrin Deep Archive", "Brae Seed Vault", "Tide \"Station\" Nine", "Ærø Plates, 50% north"];
    private static readonly string[] Customers = ["Corrin Records Trust", "Brae Growers AND Sons", "Tide_Watch*"];

    private readonly StoreInUse _store = new();
    private readonly List<(long Number, string[] Told)> _all = [];

    public StoreInUse Store => _store;

    public IReadOnlyList<(long Number, string[] Told)> All => _all;

    public async ValueTask InitializeAsync()
    {
        await _store.InitializeAsync();
        foreach (var some in Enumerable.Range(0, Tickets).Chunk(200))
            _all.AddRange(await Task.WhenAll(some.Select(OpenAsync)));
    }

    public async ValueTask DisposeAsync() => await _store.DisposeAsync();

    private async Task<(long, string[])> OpenAsync(int i)
    {
        var (asset, serial, site, customer) = (
            $"FSC-{i:00000}",
            $"SER{i:00000}X",
            Sites[i % Sites.Length],
            Customers[i % Customers.Length]
        );
        var report = new FaultReported(asset, $"CH-{i}", "Brackmere B12", customer, site, "Hall", JobKind.Fault, "Lamp", "2", serial);
        return (await _store.OpenAsync(report), [asset, serial, site, customer]);
    }
}
