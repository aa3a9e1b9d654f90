using Nailcrow.Client;
using Nailcrow.Client.Returns;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;

namespace Nailcrow.Service.Tests.Returns;

/// <summary>Stores' own work, with no ticket in it: goods in, shelves, vans, counting, and that everything balances.</summary>
public sealed class StoresTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static readonly Holder Shelf = new(HolderKind.Depot, "Counting house", "B2");

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static Guid Id => Guid.CreateVersion7();

    private async Task<NailcrowClient> WithPartsAsync(Holder at, params string[] serials)
    {
        var sefa = await service.AsAsync("sefa");
        foreach (var serial in serials)
            (await sefa.ReceiveAsync(new(Id, serial, at, "Cindral C8", 8_000_000_000_000), Ct)).Asks.ShouldBeFalse();
        return sefa;
    }

    private static async Task<(int Status, string Says)> RefusedAsync(Func<Task> what)
    {
        var no = await Should.ThrowAsync<ApiProblem>(what);
        return ((int)no.Status, no.Message);
    }

    [Fact]
    public async Task A_part_comes_goes_to_a_shelf_into_a_van_and_back_and_its_line_tells_it()
    {
        var sefa = await WithPartsAsync(Shelf, "LIFE0001AA");

        await sefa.MovePartsAsync(new(Id, ["LIFE0001AA"], Shelf with { Shelf = "C1" }), Ct);
        var out1 = await sefa.HandOutAsync(new(Id, "LIFE0001AA", "ilka"), Ct);
        var back = await sefa.ReceiveAsync(new(Id, "LIFE0001AA", Shelf), Ct);

        out1.Says.ShouldBe("LIFE0001AA went from depot Counting house, shelf C1 into the van of ilka; it is set aside for no ticket.");
        back.Says.ShouldBe("LIFE0001AA went from the van of ilka to depot Counting house, shelf B2.");
        (await sefa.PartAsync("life0001aa", Ct)).Told.ShouldBe([
            "Came to depot Counting house, shelf B2.",
            "Went to depot Counting house, shelf C1.",
            "Went to the van of ilka.",
            "Went to depot Counting house, shelf B2.",
        ]);
    }

    [Fact]
    public async Task What_is_in_a_van_is_offered_and_set_aside_where_it_is()
    {
        var sefa = await service.AsAsync("sefa");
        await sefa.ReceiveAsync(new(Id, "VAN00001AA", Shelf, "Cindral C12T", 14_000_000_000_000), Ct);
        await sefa.HandOutAsync(new(Id, "VAN00001AA", "ilka"), Ct);
        var ticket = await service.OpenAsync("FSC-0203");
        var bring = await sefa.BringAsync(ticket, Ct);
        var offered = bring.Parts.Single(p => p.Part.Serial == "VAN00001AA").Part;
        offered.Depot.ShouldBe("van of ilka");

        await sefa.WriteAsync(ticket, new PartReserved(offered.Serial, offered.Model, offered.Bytes, offered.Depot), Ct);

        var now = (await sefa.PartAsync("VAN00001AA", Ct)).Now!;
        (now.Holder, now.ReservedFor).ShouldBe((new Holder(HolderKind.Van, "ilka"), ticket));
        (await sefa.HandOutAsync(new(Id, "VAN00001AA", "ilka"), Ct)).Ticket.ShouldBe(ticket);
    }

    [Fact]
    public async Task A_code_with_an_identifier_sets_no_other_part_aside_than_the_one_it_means()
    {
        await WithPartsAsync(Shelf, "CODED0002A");
        var ticket = await service.OpenAsync("FSC-0203");

        var (status, says) = await service.RefusedAsync(
            "sefa",
            ticket,
            new PartReserved("SCODED0002A", "Cindral C12T", 14_000_000_000_000, Shelf.Name)
        );

        (status, says).ShouldBe(
            (409, "Stores knows no SCODED0002A, but CODED0002A: the label's code has an identifier before the serial. Say CODED0002A.")
        );
    }

    [Fact]
    public async Task A_label_whose_code_has_an_identifier_before_the_serial_means_the_part_that_is_known()
    {
        var sefa = await WithPartsAsync(Shelf, "CODED0001A");
        var to = Shelf with { Shelf = "D4" };

        (await sefa.ReceiveAsync(new(Id, "SCODED0001A", to), Ct)).Says.ShouldBe($"CODED0001A went from {Shelf} to {to}.");
        (await sefa.CountAsync(new(Id, to, ["1SCODED0001A"]), Ct)).Counted.AsRecorded.ShouldBe(1);
        (await sefa.PartAsync("SCODED0001A", Ct)).Serial.ShouldBe("CODED0001A");
        (await sefa.HandOutAsync(new(Id, "SCODED0001A", "ilka"), Ct)).Asks.ShouldBeFalse();
        var stranger = await sefa.ReceiveAsync(new(Id, "SOTHER0002B", to), Ct);
        (stranger.Asks, stranger.Says.Contains("Where the label prints OTHER0002B")).ShouldBe((true, true));
    }

    [Theory, InlineData(false), InlineData(true)]
    public async Task A_part_that_goes_back_into_a_van_lies_in_that_van_and_in_no_depot_of_its_name(bool scanned)
    {
        var serial = scanned ? "VANBACK02B" : "VANBACK01A";
        var sefa = await service.AsAsync("sefa");
        await sefa.ReceiveAsync(new(Id, serial, Shelf, "Cindral C12T", 14_000_000_000_000), Ct);
        await sefa.HandOutAsync(new(Id, serial, "ilka"), Ct);
        var ticket = await service.OpenAsync("FSC-0203");
        var part = (await sefa.BringAsync(ticket, Ct)).Parts.Single(p => p.Part.Serial == serial).Part;
        await sefa.WriteAsync(ticket, new PartReserved(serial, part.Model, part.Bytes, part.Depot), Ct);
        await sefa.WriteAsync(ticket, new PartIssued(serial, "ilka"), Ct);
        await service.WriteAsync("ilka", ticket, new ReturnOpened(serial, ReturnReason.BackToStores, new(HolderKind.Depot, part.Depot)));

        if (scanned)
            (await sefa.ReceiveAsync(new(Id, serial, new(HolderKind.Van, "ilka")), Ct)).Says.ShouldContain("it has arrived");
        else
            await sefa.WriteAsync(ticket, new ReturnArrived(serial, serial), Ct);

        (await sefa.PartAsync(serial, Ct)).Now!.Holder.ShouldBe(new Holder(HolderKind.Van, "ilka"));
        var held = (await sefa.TicketAsync(ticket, Ct)).Held.Single(h => h.Serial == serial);
        (held.Holder.Kind, held.MayKeep).ShouldBe((HolderKind.Van, true));
        (await sefa.PartsAsync(new(HolderKind.Depot, "van of ilka"), null, Ct)).Parts.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_count_tells_what_is_missing_here_unknown_and_twice_and_changes_nothing_until_it_is_told_to()
    {
        var here = new Holder(HolderKind.Depot, "Counting house", "K1");
        var sefa = await WithPartsAsync(here, "COUNT001AA", "COUNT002BB");
        await WithPartsAsync(here with { Shelf = "K2" }, "COUNT003CC");
        var scanned = new[] { "count001aa", "COUNT001AA", "COUNT003CC", "NOBODYS99X", "?" };

        var told = await sefa.CountAsync(new(Id, here, scanned), Ct);

        (told.Counted.Scanned, told.Counted.AsRecorded).ShouldBe((3, 1));
        told.Counted.Missing.Select(m => m.Serial).ShouldBe(["COUNT002BB"]);
        told.Counted.Found.Select(f => f.Says).ShouldBe(["COUNT003CC is here; by the record it is in depot Counting house, shelf K2."]);
        told.Counted.Unknown.ShouldBe(["NOBODYS99X"]);
        told.Counted.Twice.ShouldBe(["COUNT001AA"]);
        told.Counted.Unusable.ShouldBe(["?"]);
        (await sefa.PartAsync("COUNT003CC", Ct)).Now!.Holder.Shelf.ShouldBe("K2");

        var booked = await sefa.CountAsync(new(Id, here, scanned, Book: true), Ct);

        booked.Booked.Single().Asks.ShouldBeFalse();
        (await sefa.PartAsync("COUNT003CC", Ct)).Now!.Holder.ShouldBe(here);
    }

    [Fact]
    public async Task Ten_thousand_lines_in_one_count_are_counted_and_more_are_refused()
    {
        var sefa = await service.AsAsync("sefa");
        var here = new Holder(HolderKind.Depot, "Counting house", "Z9");
        var many = Enumerable.Range(0, 10_000).Select(n => $"MANY{n:00000}X").ToList();

        (await sefa.CountAsync(new(Id, here, many), Ct)).Counted.Unknown.Count.ShouldBe(10_000);

        (await RefusedAsync(() => sefa.CountAsync(new(Id, here, [.. many, .. many, "ONEMORE1X"]), Ct))).ShouldBe(
            (422, "20,001 serials at once; at most 20,000 are taken. Count shelf by shelf.")
        );
        (await RefusedAsync(() => sefa.CountAsync(new(Id, here, []), Ct))).Says.ShouldBe("No serial was scanned.");
    }

    [Fact]
    public async Task What_nobody_knows_asks_for_its_label_and_what_is_no_place_of_stores_is_refused()
    {
        var sefa = await service.AsAsync("sefa");

        var unknown = await sefa.ReceiveAsync(new(Id, "QX88STRANGE", Shelf), Ct);
        (unknown.Asks, unknown.Says).ShouldBe(
            (true, "Nothing is known of QX88STRANGE. Say its model and size as on its label, and it is taken in.")
        );
        (await sefa.ReceiveAsync(new(Id, "QX88STRANGE", Shelf, "Cindral C8", 5), Ct)).Asks.ShouldBeTrue(); // five bytes
        (await sefa.ReceiveAsync(new(Id, "!", Shelf, "Cindral C8", 8_000_000_000_000), Ct)).Asks.ShouldBeTrue();
        (await RefusedAsync(() => sefa.ReceiveAsync(new(Id, "QX88STRANGE", new(HolderKind.Bay, "3")), Ct))).Says.ShouldContain(
            "a depot or a van"
        );
        (await RefusedAsync(() => sefa.ReceiveAsync(new(Id, "QX88STRANGE", new(HolderKind.Depot, " ")), Ct))).Says.ShouldBe(
            "Say which depot, or whose van."
        );
        (await RefusedAsync(() => sefa.HandOutAsync(new(Id, "QX88STRANGE", "nobody"), Ct))).Says.ShouldContain("is no engineer here");
        (await sefa.HandOutAsync(new(Id, "QX88STRANGE", "ilka"), Ct)).Says.ShouldContain("receive it first");
        (await RefusedAsync(() => sefa.PartAsync("QX88STRANGE", Ct))).Status.ShouldBe(404);
    }

    [Fact]
    public async Task Whoever_does_not_keep_stores_looks_and_changes_nothing()
    {
        var ilka = await service.AsAsync("ilka");

        (await ilka.StoresAsync(null, Ct)).Shelves.ShouldNotBeNull();
        (await RefusedAsync(() => ilka.ReceiveAsync(new(Id, "QX77STRANGE", Shelf, "Cindral C8", 8_000_000_000_000), Ct))).Status.ShouldBe(
            403
        );
        (await RefusedAsync(() => ilka.WipeAsync(new(Id, "QX77STRANGE", "Sanitize"), Ct))).Status.ShouldBe(403);
        // Their own van is theirs to count: nobody else looks into it.
        (await RefusedAsync(() => ilka.CountAsync(new(Id, Shelf, ["QX77STRANGE"], false), Ct))).Status.ShouldBe(403);
        (await RefusedAsync(() => ilka.CountAsync(new(Id, new(HolderKind.Van, "tamsel"), ["QX77STRANGE"], false), Ct))).Status.ShouldBe(
            403
        );
        (await ilka.CountAsync(new(Id, new(HolderKind.Van, "ilka"), ["QX77STRANGE"], false), Ct)).Counted.Unknown.ShouldBe(["QX77STRANGE"]);
    }

    [Fact]
    public async Task Sent_twice_it_is_taken_once()
    {
        var sefa = await service.AsAsync("sefa");
        var ask = new ReceiveAsk(Id, "TWICE001AA", Shelf, "Cindral C8", 8_000_000_000_000);

        await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => sefa.ReceiveAsync(ask, Ct)));

        (await sefa.PartAsync("TWICE001AA", Ct)).Movements.Count.ShouldBe(1);
    }

    [Fact]
    public async Task Everything_that_ever_came_in_is_somewhere()
    {
        var sefa = await WithPartsAsync(Shelf, "BAL00001AA", "BAL00002BB", "BAL00003CC");
        await sefa.HandOutAsync(new(Id, "BAL00001AA", "ilka"), Ct);
        await (await service.AsAsync("lioth")).WriteOffAsync(new(Id, "BAL00002BB", "Counted three times", "Nothing, new"), Ct);

        var balance = await sefa.BalanceAsync(Ct);

        balance.Difference.ShouldBe(0);
        balance.Contradictions.ShouldBe(0);
        balance.Holders.Sum(h => h.Parts).ShouldBe(balance.Parts);
        balance.Holders.Single(h => h.Kind == HolderKind.Lost).Parts.ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task A_long_shelf_is_read_a_page_at_a_time_and_each_part_comes_once()
    {
        var sefa = await service.AsAsync("sefa");
        var here = new Holder(HolderKind.Depot, "Long shelf");
        foreach (var n in Enumerable.Range(0, 205))
            await sefa.ReceiveAsync(new(Id, $"PAGE{n:000}QX", here, $"Cindral C{n % 3}", 8_000_000_000_000), Ct);
        var seen = new List<string>();
        string? after = null;
        do
        {
            var page = await sefa.PartsAsync(here, after, Ct);
            seen.AddRange(page.Parts.Select(p => p.Serial));
            after = page.Next;
        } while (after is not null);

        (seen.Count, seen.Distinct().Count()).ShouldBe((205, 205));
        (await sefa.StoresAsync("Long shelf", Ct)).Shelves.Select(s => s.There).ShouldBe([69, 68, 68]);
    }
}
