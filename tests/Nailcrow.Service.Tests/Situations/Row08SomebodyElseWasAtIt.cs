using Nailcrow.Core.Appliances;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Somebody worked on the machine since the last ticket closed: what differs is read before anything is pulled, and settled.</summary>
[Collection(Stories.Name)]
public sealed class Row08SomebodyElseWasAtIt(TheFirm firm)
{
    [Fact]
    public async Task A_drive_nobody_recorded_is_told_at_the_first_look_and_on_the_run_until_somebody_says_what_it_is()
    {
        var first = await new Story(firm).OnSiteAsync();
        await first.StartAsync();
        await first.ClosesAsync();
        var was = first.Machine.Serial("5");
        first.Machine["5"] = first.Machine["5"] with { Serial = first.Machine.Stranger("5") };
        var later = await first.LaterAsync("3");
        await later.StartsAnewAsync();

        var open = (await later.ViewAsync()).Discrepancies.ShouldHaveSingleItem();
        open.Sentence.ShouldContain($"Since ilka looked on {TicketNumber.Text(first.Ticket)}");
        open.Sentence.ShouldContain($"Bay 5 held {was} and now holds {first.Machine.Stranger("5")}.");
        await later.PartAsync();
        await later.DoesAsync("ilka", new ArrivedOnSite());
        await later.StartAsync();
        (await later.FollowAsync("pull")).Run!.DoesNotAgree!.ShouldContain(open.Sentence);
        (await later.ToldAsync()).ShouldContain(t => t.StartsWith("Not as", StringComparison.Ordinal));

        await later.DoesAsync("lioth", new DiscrepancySettled(open.Id, "The customer's own man changed it on Monday."));
        (await later.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task What_a_ticket_recorded_what_is_reported_and_what_nobody_could_read_is_no_difference()
    {
        var first = await new Story(firm).OnSiteAsync();
        await first.StartAsync();
        await first.ClosesAsync();
        first.Machine["6"] = new("6", BayRole.NotKnown);
        first.Machine["4"] = first.Machine["4"] with { Serial = first.Machine.Serial("4")[4..] }; // its end only
        var later = await first.LaterAsync("3");
        await later.StartsAnewAsync();

        (await later.ViewAsync()).Discrepancies.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_look_at_the_wrong_machine_takes_back_what_it_made_known()
    {
        var first = await new Story(firm).OnSiteAsync();
        await first.StartAsync();
        await first.ClosesAsync();
        first.Machine["5"] = first.Machine["5"] with { Serial = first.Machine.Stranger("5") };
        var later = await first.LaterAsync("3");
        var looked = await later.LastAsync<SnapshotTaken>();
        await later.DoesAsync("ilka", new EntryCorrected(looked.Id, "I stood before the machine beside it."));
        await later.StartsAnewAsync();

        (await later.ViewAsync()).Discrepancies.ShouldBeEmpty();
        await later.LooksAsync(); // at the right one, which is so all the same
        (await later.ViewAsync()).Discrepancies.ShouldHaveSingleItem().Sentence.ShouldContain($"now holds {first.Machine.Stranger("5")}");
    }
}
