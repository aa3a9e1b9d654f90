using System.Net;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Service.Tests.Tickets;

/// <summary>The list of tickets as somebody narrows it: nothing that is asked for is left out, and nothing else comes.</summary>
public sealed class ListTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Each_narrowing_leaves_what_is_so_and_they_narrow_together()
    {
        var dorrik = await service.AsAsync("dorrik");
        var mine = await OpenAsync("FSC-0203");
        var other = await OpenAsync("FSC-0311");
        await service.WriteAsync("dorrik", mine, new EngineerAssigned("ilka"));
        var site = (await dorrik.TicketAsync(mine, Ct)).Report.Site;

        (await NumbersAsync(new(Site: site[1..4].ToUpperInvariant()))).ShouldContain(mine);
        (await NumbersAsync(new(Site: site, Engineer: "ilka"))).ShouldContain(mine);
        (await NumbersAsync(new(Site: site, Engineer: "ilka"))).ShouldNotContain(other);
        (await NumbersAsync(new(Stage: Stage.Planned))).ShouldNotContain(other);
        (await NumbersAsync(new(Danger: DangerSought.NotKnown))).ShouldContain(other);
        (await NumbersAsync(new(Danger: DangerSought.NoMargin))).ShouldNotContain(other);
        (await NumbersAsync(new(Find: "0311"))).ShouldContain(other);
        (await NumbersAsync(new(Find: "_3_1"))).ShouldBeEmpty(); // what is typed has no wildcards
    }

    [Fact]
    public async Task What_is_over_is_found_when_it_is_asked_for_and_is_overdue_no_more()
    {
        var over = await OpenAsync("FSC-0402");
        await service.WriteAsync("dorrik", over, new TicketCancelled("Entered twice"));

        (await NumbersAsync(new(Ended: true))).ShouldContain(over);
        (await NumbersAsync(new(Ended: false))).ShouldNotContain(over);
        (await NumbersAsync(new(Overdue: true))).ShouldNotContain(over);
    }

    [Theory, InlineData(TicketOrder.Newest), InlineData(TicketOrder.Worst), InlineData(TicketOrder.DueFirst)]
    public async Task Every_order_comes_in_pages_without_gap_or_repeat_and_says_how_many_there_are(TicketOrder order)
    {
        for (var i = 0; i < 3; i++)
            await OpenAsync("FSC-0203");
        var dorrik = await service.AsAsync("dorrik");

        var (numbers, from, count) = (new List<long>(), (long?)null, 0);
        do
        {
            var search =
                order == TicketOrder.Newest
                    ? new TicketSearch(Limit: 2, Before: from)
                    : new(Limit: 2, Order: order, Skip: (int)(from ?? 0));
            var page = await dorrik.TicketsAsync(search, Ct);
            numbers.AddRange(page.Tickets.Select(t => t.Number));
            (from, count) = (page.Next, page.Count ?? -1);
        } while (from is not null);

        numbers.Count.ShouldBe(count);
        numbers.Distinct().Count().ShouldBe(count);
    }

    [Theory]
    [InlineData("danger=terrible", "'terrible' is not a danger; accepted: data-lost, no-margin, some-margin, not-known.")]
    [InlineData("order=best", "'best' is not a known order; accepted: newest, worst, due-first.")]
    [InlineData("order=worst&before=1003", "'before' goes with the newest first; with another order say 'skip'.")]
    [InlineData("skip=-1", "0 to 100000 tickets can be left out, not -1; narrow what is asked for.")]
    public async Task What_no_list_knows_is_refused_with_what_would_be_taken(string query, string sentence)
    {
        var http = service.Service.Http();
        var token = await new NailcrowClient(http, TimeProvider.System).SignInAsync("ilka", Running.RunningService.Password, Ct);
        http.DefaultRequestHeaders.Authorization = new("Bearer", token.AccessToken);

        var answer = await http.GetAsync(new Uri($"api/tickets?{query}", UriKind.Relative), Ct);

        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync(Ct)).Replace("\\u0027", "'").ShouldContain(sentence);
    }

    [Fact]
    public async Task A_machine_is_found_by_any_part_of_what_it_is_and_where_it_stands()
    {
        var ilka = await service.AsAsync("ilka");
        var all = (await ilka.AppliancesAsync(null, Ct)).Appliances;
        var one = all.First(a => a.Appliance.Asset == "FSC-0203");

        foreach (var part in new[] { "0203", one.Appliance.Serial[2..], one.Site.Name[1..^1].ToUpperInvariant(), one.Appliance.Location })
        {
            var found = (await ilka.AppliancesAsync(null, Ct, part)).Appliances.Select(a => a.Appliance.Asset).ToList();
            found.ShouldContain("FSC-0203", part);
        }
        (await ilka.AppliancesAsync(null, Ct, "0203")).Appliances.ShouldHaveSingleItem();
        (await ilka.AppliancesAsync(null, Ct, "%")).Appliances.ShouldBeEmpty();
    }

    private async Task<long> OpenAsync(string asset) =>
        (await (await service.AsAsync("dorrik")).ReportAsync(new FaultAsk(asset, "Amber lamp"), Ct)).Ticket;

    private async Task<List<long>> NumbersAsync(TicketSearch search) =>
        [.. (await (await service.AsAsync("dorrik")).TicketsAsync(search with { Limit = 200 }, Ct)).Tickets.Select(t => t.Number)];
}
