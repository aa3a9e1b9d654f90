using Nailcrow.Client;
using Nailcrow.Client.Returns;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Service.Tests.Situations;

namespace Nailcrow.Service.Tests.Returns;

/// <summary>What has no serial: counted in depots and vans, used up on tickets, and never fewer than none.</summary>
[Collection(Stories.Name)]
public sealed class SuppliesTests(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<SupplyAnswer> SaysAsync(SupplyAsk ask, string who = "sefa") =>
        await (await firm.AsAsync(who)).CountSuppliesAsync(ask, Ct);

    private static SupplyAsk Came(string supply, int count) => new(Guid.CreateVersion7(), supply, SupplyWay.Came, count, To: "Stores");

    private async Task<SupplyView> ViewAsync(string supply) => await (await firm.AsAsync("ilka")).SupplyAsync(supply, Ct);

    private async Task<IEnumerable<(Holder, long)>> WhereAsync(string supply) =>
        (await ViewAsync(supply)).Now.Where.Select(w => (w.Holder, w.Count));

    [Fact]
    public async Task It_comes_goes_into_a_van_is_used_on_a_ticket_and_the_ledger_tells_it_also_after_a_restart()
    {
        (await SaysAsync(Came("Sled carriers", 40))).ShouldBe(
            new SupplyAnswer("Sled carriers: 40 came to depot Stores; 40 are there.", false)
        );
        await SaysAsync(new(Guid.CreateVersion7(), "sled  CARRIERS", SupplyWay.Moved, 6, "Stores", "van of ilka"));
        var story = new Story(firm);
        await story.SwappedAsync();
        await story.DoesAsync("ilka", new SuppliesUsed("sled carriers", 2));
        await firm.StartsAnewAsync();

        var view = await ViewAsync("sled carriers");
        view.Now.Name.ShouldBe("Sled carriers");
        view.Told.Select(t => t.Says)
            .ShouldBe([
                "40 came to depot Stores.",
                "6 went from depot Stores to the van of ilka.",
                $"2 used on T-{story.Ticket}, from the van of ilka.",
            ]);
        (await WhereAsync("sled carriers")).ShouldBe([(new(HolderKind.Depot, "Stores"), 34), (new(HolderKind.Van, "ilka"), 4)]);
        (await story.ViewAsync()).Supplies.ShouldBe(["2 sled carriers, from the van of ilka."]);
        (await story.ReportSaysAsync()).ShouldContain(line => line.Contains("Used: 2 sled carriers."));
        var balance = (await (await firm.AsAsync("sefa")).BalanceAsync(Ct)).Supplies.Single(s => s.Name == "Sled carriers");
        balance.ShouldBe(new("Sled carriers", 40, 0, 2, 0, 38, 0));
        (await (await firm.AsAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task What_was_used_is_put_right_on_its_ticket_and_the_count_follows()
    {
        await SaysAsync(Came("Short cables", 10));
        var story = new Story(firm);
        await story.SwappedAsync();
        await story.DoesAsync("ilka", new SuppliesUsed("Short cables", 9, "Stores"));
        var used = await story.LastAsync<SuppliesUsed>();

        await story.DoesAsync("ilka", new EntryCorrected(used.Id, "Three, not nine.", new SuppliesUsed("Short cables", 3, "Stores")));
        (await WhereAsync("Short cables")).Single().Item2.ShouldBe(7);
        await story.DoesAsync("ilka", new EntryCorrected((await story.LastAsync<EntryCorrected>()).Id, "It were nine, after all."));
        (await WhereAsync("Short cables")).Single().Item2.ShouldBe(1);
        await story.DoesAsync("ilka", new EntryCorrected(used.Id, "None was used here."));
        (await WhereAsync("Short cables")).Single().Item2.ShouldBe(10);
        (await (await firm.AsAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task An_engineer_who_used_more_than_is_recorded_is_believed_and_stores_is_asked()
    {
        var story = new Story(firm);
        await story.SwappedAsync();
        await story.DoesAsync("ilka", new SuppliesUsed("Blank faceplates", 2));

        (await ViewAsync("blank faceplates"))
            .Told.Single()
            .Says.ShouldBe($"2 used on T-{story.Ticket}, from the van of ilka. By the record 0 were there: 2 found.");
        var no = await SaysAsync(new(Guid.CreateVersion7(), "Blank faceplates", SupplyWay.Moved, 1, "van of ilka", "Stores"));
        no.ShouldBe(
            new("Blank faceplates: by the record 0 are in the van of ilka; 1 cannot leave it. Count there first if there are more.", true)
        );
    }

    [Fact]
    public async Task One_whose_only_use_was_taken_back_keeps_its_line_and_its_first_name()
    {
        var story = new Story(firm);
        await story.SwappedAsync();
        await story.DoesAsync("ilka", new SuppliesUsed("Odd washers", 2));
        await story.DoesAsync("ilka", new EntryCorrected((await story.LastAsync<SuppliesUsed>()).Id, "None was used."));

        (await ViewAsync("odd washers")).Now.Held.ShouldBe(0);
        (await SaysAsync(Came("ODD WASHERS", 5))).Says.ShouldBe("Odd washers: 5 came to depot Stores; 5 are there.");
        (await ViewAsync("odd washers")).Now.Name.ShouldBe("Odd washers");
        (await (await firm.AsAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_slip_in_its_name_on_a_ticket_is_asked_about_and_makes_no_second_supply()
    {
        await SaysAsync(Came("Rail clips", 12));
        var story = new Story(firm);
        await story.SwappedAsync();

        (await story.RefusedAsync("ilka", new SuppliesUsed("Rail clops", 2, "Stores"))).Sentence.ShouldBe(
            "Nothing is known of Rail clops; Rail clips reads nearly the same. Say which it is. A new one is said to be new: in the form, or with --as-named."
        );
        await story.DoesAsync("ilka", new SuppliesUsed("rail  CLIPS", 2, "Stores"));
        var used = await story.LastAsync<SuppliesUsed>();
        (
            await story.RefusedAsync("ilka", new EntryCorrected(used.Id, "Three.", new SuppliesUsed("Rail clip", 3, "Stores")))
        ).Sentence.ShouldContain("Rail clips reads nearly the same");
        (await WhereAsync("Rail clips")).Single().Item2.ShouldBe(10);
        await story.DoesAsync("ilka", new SuppliesUsed("Rail clip", 1, "Stores", AsNamed: true));
        await story.DoesAsync("ilka", new SuppliesUsed("Rail clip", 1, "Stores"));
        (await ViewAsync("rail clip")).Now.Lately.ShouldBe(2);
    }

    [Fact]
    public async Task A_part_with_a_serial_is_no_supply_on_a_ticket_either()
    {
        var story = new Story(firm);
        await story.SwappedAsync();
        var serial = story.Parts[0];

        (await story.RefusedAsync("ilka", new SuppliesUsed(serial.ToLowerInvariant(), 1))).Sentence.ShouldStartWith(
            $"{serial} is a part with a serial"
        );
    }

    [Fact]
    public async Task Used_after_the_end_it_is_counted_and_nobody_has_to_look_at_the_ticket_again()
    {
        var story = new Story(firm);
        await story.SwappedAsync();
        await story.ClosesAsync();

        await story.DoesAsync("ilka", new SuppliesUsed("Late labels", 1));

        (await story.ViewAsync()).Discrepancies.ShouldNotContain(d => d.IsOpen);
        (await ViewAsync("late labels")).Now.Lately.ShouldBe(1);
    }

    [Fact]
    public async Task Sent_twice_it_is_taken_once_and_an_id_that_is_in_use_says_so()
    {
        var came = Came("Cable ties", 100);
        await SaysAsync(came);

        (await SaysAsync(came)).ShouldBe(new SupplyAnswer("It is written down already.", false));
        (await SaysAsync(came with { Count = 7 })).Asks.ShouldBeTrue();
        (await WhereAsync("cable ties")).Single().Item2.ShouldBe(100);
    }

    [Fact]
    public async Task Two_who_take_the_last_ones_at_once_do_not_both_have_them()
    {
        await SaysAsync(Came("Rail kits", 5));

        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(n =>
                    SaysAsync(
                        new(Guid.CreateVersion7(), "Rail kits", SupplyWay.Moved, 3, "Stores", $"van of {(n % 2 == 0 ? "ilka" : "tamsel")}")
                    )
                )
        );

        answers.Count(a => !a.Asks).ShouldBe(1);
        (await WhereAsync("Rail kits")).Sum(w => w.Item2).ShouldBe(5);
    }

    [Fact]
    public async Task A_name_that_reads_nearly_like_a_known_one_is_asked_about_once()
    {
        await SaysAsync(Came("T3 bolts", 10));

        var asked = await SaysAsync(Came("T4 bolts", 10));
        asked.ShouldBe(
            new SupplyAnswer("Nothing is known of T4 bolts; T3 bolts reads nearly the same. Say which it is.", true, "T3 bolts")
        );
        (await SaysAsync(Came("T4 bolts", 10) with { AsNamed = true })).Asks.ShouldBeFalse();
        (await SaysAsync(Came("T4 bolts", 1))).Asks.ShouldBeFalse();
    }

    [Fact]
    public async Task A_part_with_a_serial_is_no_supply_and_nonsense_is_told()
    {
        var sefa = await firm.AsAsync("sefa");
        await sefa.ReceiveAsync(
            new(Guid.CreateVersion7(), "SUPPLYNO01X", new(HolderKind.Depot, "Stores"), "Cindral C8", 8_000_000_000_000),
            Ct
        );

        (await SaysAsync(Came("SUPPLYNO01X", 1))).Says.ShouldStartWith("SUPPLYNO01X is a part with a serial");
        (await SaysAsync(Came("Odd ones", 0))).Says.ShouldBe("0 is no count; 1 to 1,000,000 are taken.");
        (await SaysAsync(Came("Odd ones", 1) with { To = " " })).Says.ShouldBe("Say to which depot, or whose van.");
        (await SaysAsync(Came("Odd ones", 1) with { Way = SupplyWay.Undone })).Asks.ShouldBeTrue();
        ((int)(await Should.ThrowAsync<ApiProblem>(() => SaysAsync(Came("  ", 1)))).Status).ShouldBe(422);
        ((int)(await Should.ThrowAsync<ApiProblem>(() => SaysAsync(Came("Odd ones", 1) with { Note = new('x', 4_001) }))).Status).ShouldBe(
            422
        );
        ((int)(await Should.ThrowAsync<ApiProblem>(() => SaysAsync(Came("Odd ones", 1), "ilka"))).Status).ShouldBe(403);
        ((int)(await Should.ThrowAsync<ApiProblem>(() => ViewAsync("odd ones"))).Status).ShouldBe(404);
    }

    [Fact]
    public async Task An_engineer_counts_what_lies_in_their_own_van_and_no_more()
    {
        await SaysAsync(Came("Van bolts", 10) with { To = "van of ilka" });

        (await SaysAsync(new(Guid.CreateVersion7(), "Van bolts", SupplyWay.Counted, 8, From: "van of ilka"), "ilka")).Asks.ShouldBeFalse();
        var notTheirs = await Should.ThrowAsync<ApiProblem>(() =>
            SaysAsync(new(Guid.CreateVersion7(), "Van bolts", SupplyWay.Counted, 8, From: "van of tamsel"), "ilka")
        );
        var moves = await Should.ThrowAsync<ApiProblem>(() => SaysAsync(Came("Van bolts", 1) with { To = "van of ilka" }, "ilka"));

        (await WhereAsync("Van bolts")).Sum(w => w.Item2).ShouldBe(8);
        ((int)notTheirs.Status, notTheirs.Message).ShouldBe(
            (403, "ilka counts their own van, where they are an engineer; the rest takes the role stores, dispatcher, lead.")
        );
        ((int)moves.Status).ShouldBe(403);
    }

    [Fact]
    public async Task What_is_used_faster_than_it_lies_in_depots_is_to_be_ordered()
    {
        await SaysAsync(Came("Thermal pads", 200));
        await SaysAsync(new(Guid.CreateVersion7(), "Thermal pads", SupplyWay.Used, 190, "Stores", Note: "Wet."));

        var order = (await ViewAsync("thermal pads")).Now.Order.ShouldNotBeNull();

        (order.Order, order.Says).ShouldBe((21, "190 used in 90 days x 14 days to come = 30, and 1 more, less 10 free"));
        (await ViewAsync("thermal pads")).Told[^1].Says.ShouldBe("190 used up, from depot Stores. Wet.");
    }
}
