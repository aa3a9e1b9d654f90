using Nailcrow.Client;
using Nailcrow.Client.Returns;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Supplies;

namespace Nailcrow.Service.Tests.Returns;

/// <summary>
/// Where a part is put is somewhere: in the van of nobody, or in a depot that is only another one's misspelt name, nobody would look for
/// it. What is in the hand is what its label says: a part that nobody knows is asked about where one is known that reads nearly the same.
/// </summary>
public sealed class PlacesNamedTests(PeopledService service) : IClassFixture<PeopledService>
{
    private const long Bytes = 8_000_000_000_000;

    private static readonly Holder Nobodys = new(HolderKind.Van, "ilca");

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static Guid Id => Guid.CreateVersion7();

    private static Holder Depot(string name) => new(HolderKind.Depot, name, "B2");

    private async Task<NailcrowClient> WithPartAsync(string serial, string depot = "Windmill")
    {
        var sefa = await service.AsAsync("sefa");
        (await sefa.ReceiveAsync(new(Id, serial, Depot(depot), "Cindral C8", Bytes), Ct)).Asks.ShouldBeFalse();
        return sefa;
    }

    private static async Task SaysThereIsNoSuchVanAsync(Func<Task> what)
    {
        var no = await Should.ThrowAsync<ApiProblem>(what);
        ((int)no.Status).ShouldBe(422);
        no.Message.ShouldBe("'ilca' is no engineer here, and has no van; engineers: ilka, tamsel.");
    }

    [Fact]
    public async Task Into_the_van_of_nobody_nothing_goes_by_any_door()
    {
        var sefa = await WithPartAsync("NOVAN0001A");
        var ticket = await service.OpenAsync("FSC-0203", "4");

        await SaysThereIsNoSuchVanAsync(() => sefa.ReceiveAsync(new(Id, "NOVAN0002B", Nobodys, "Cindral C8", Bytes), Ct));
        await SaysThereIsNoSuchVanAsync(() => sefa.MovePartsAsync(new(Id, ["NOVAN0001A"], Nobodys), Ct));
        await SaysThereIsNoSuchVanAsync(() => sefa.CountAsync(new(Id, Nobodys, ["NOVAN0001A"], Book: true), Ct));
        await SaysThereIsNoSuchVanAsync(() => sefa.CountAsync(new(Id, Nobodys, ["NOVAN0001A"]), Ct));
        await SaysThereIsNoSuchVanAsync(() => sefa.CountSuppliesAsync(new(Id, "hinge pins", SupplyWay.Came, 4, To: Nobodys.Place()), Ct));
        await SaysThereIsNoSuchVanAsync(() =>
            sefa.CountSuppliesAsync(new(Id, "hinge pins", SupplyWay.Counted, 4, From: Nobodys.Place()), Ct)
        );
        (await service.RefusedAsync("sefa", ticket, new PartTakenBack("NOVAN0001A", Nobodys.Place()))).Status.ShouldBe(422);
        (
            await service.RefusedAsync("sefa", ticket, new PartReserved("NOVAN0003C", "Cindral C12T", 14_000_000_000_000, Nobodys.Place()))
        ).Status.ShouldBe(422);
        (await service.RefusedAsync("ilka", ticket, new SuppliesUsed("hinge pins", 1, Nobodys.Place(), true))).Status.ShouldBe(422);

        (await sefa.PartAsync("NOVAN0001A", Ct)).Now!.Holder.ShouldBe(Depot("Windmill"));
        (await Should.ThrowAsync<ApiProblem>(() => sefa.PartAsync("NOVAN0002B", Ct))).Message.ShouldContain("has no part NOVAN0002B");
    }

    [Fact]
    public async Task What_is_in_the_van_of_somebody_who_has_gone_is_counted_and_taken_out_and_nothing_more_goes_in()
    {
        await service.Service.LetInAsync("orrick", Core.People.Role.Engineer);
        var sefa = await WithPartAsync("GONEVAN01A");
        await sefa.MovePartsAsync(new(Id, ["GONEVAN01A"], new(HolderKind.Van, "orrick")), Ct);
        await sefa.CountSuppliesAsync(new(Id, "hinge pins", SupplyWay.Came, 4, To: "van of orrick"), Ct);
        var admin = await service.AsAsync("admin");
        await admin.DisablePersonAsync("orrick", "He has gone", Ct);

        (await sefa.CountAsync(new(Id, new(HolderKind.Van, "orrick"), ["GONEVAN01A"]), Ct)).Counted.AsRecorded.ShouldBe(1);
        (
            await Should.ThrowAsync<ApiProblem>(() => sefa.MovePartsAsync(new(Id, ["GONEVAN01A"], new(HolderKind.Van, "orrick")), Ct))
        ).Message.ShouldStartWith("'orrick' is no engineer here");
        (await sefa.CountSuppliesAsync(new(Id, "hinge pins", SupplyWay.Counted, 3, From: "van of orrick"), Ct)).Asks.ShouldBeFalse();
        var left = await sefa.CountSuppliesAsync(new(Id, "hinge pins", SupplyWay.Moved, 3, From: "van of orrick", To: "Windmill"), Ct);
        left.Says.ShouldContain("3 went from the van of orrick to depot Windmill");
        (await sefa.ReceiveAsync(new(Id, "GONEVAN01A", Depot("Windmill")), Ct)).Says.ShouldStartWith(
            "GONEVAN01A went from the van of orrick"
        );
    }

    [Fact]
    public async Task A_depot_that_reads_nearly_like_another_is_asked_about_and_is_either()
    {
        var sefa = await WithPartAsync("NEARLY001A", "Harbour store");

        var asked = await sefa.ReceiveAsync(new(Id, "NEARLY002B", Depot("Harbor store"), "Cindral C8", Bytes), Ct);
        var moved = await sefa.MovePartsAsync(new(Id, ["NEARLY001A"], Depot("Harbor store")), Ct);
        var came = await sefa.CountSuppliesAsync(new(Id, "rail bolts", SupplyWay.Came, 9, To: "Harbor store"), Ct);
        var counted = await Should.ThrowAsync<ApiProblem>(() => sefa.CountAsync(new(Id, Depot("Harbor store"), ["NEARLY001A"]), Ct));

        const string says = "Nothing lies in a depot 'Harbor store', and there is Harbour store. Say which it is.";
        foreach (var answer in new[] { asked, moved.Parts.Single() })
            (answer.Asks, answer.NearDepot, answer.Says).ShouldBe((true, "Harbour store", says));
        (came.Asks, came.NearDepot, came.Says).ShouldBe((true, "Harbour store", says));
        counted.Message.ShouldBe($"{says} A new depot begins with the first part that is taken in there at the stores' desk.");
        (await sefa.PartAsync("NEARLY001A", Ct)).Movements.Count.ShouldBe(1);

        (await sefa.ReceiveAsync(new(Id, "NEARLY002B", Depot("harbour STORE"), "Cindral C8", Bytes), Ct)).Now!.Holder.ShouldBe(
            Depot("Harbour store")
        );
        (await sefa.MovePartsAsync(new(Id, ["NEARLY001A"], Depot("Harbor store"), NewDepot: true), Ct))
            .Parts.Single()
            .Now!.Holder.ShouldBe(Depot("Harbor store"));
        (await sefa.CountAsync(new(Id, Depot("Harbor store"), ["NEARLY001A"]), Ct)).Counted.AsRecorded.ShouldBe(1);
    }

    [Fact]
    public async Task An_entry_of_a_ticket_names_a_depot_by_the_name_it_goes_by()
    {
        var sefa = await WithPartAsync("ENTRY0001A", "Quay 3");
        var ticket = await service.OpenAsync("FSC-0404", "2");
        PartTakenBack back = new("CDR12T0077001", "quay  3", "B2");
        var now = DateTimeOffset.UtcNow;
        EntryAsk ask = new(back, Guid.CreateVersion7(), now, now, 0);

        var near = await service.RefusedAsync("sefa", ticket, back with { Depot = "Qauy 3" });
        await sefa.WriteAsync(ticket, ask, Ct);
        await WithPartAsync("ENTRY0002B", "quay 3 ");
        await sefa.WriteAsync(ticket, ask, Ct); // sent again after a lost answer

        near.ShouldBe(
            (
                422,
                "Nothing lies in a depot 'Qauy 3', and there is Quay 3. Say which it is. A new depot begins with the first part that is "
                    + "taken in there at the stores' desk."
            )
        );
        (await sefa.PartAsync("CDR12T0077001", Ct)).Now!.Holder.ShouldBe(Depot("Quay 3"));
        (await sefa.StoresAsync("Quay 3", Ct)).Shelves.Sum(s => s.There).ShouldBe(3);
        var aside = await service.OpenAsync("FSC-0203", "6");
        PartReserved unlisted = new("ENTRY0003C", "Cindral C12T", 14_000_000_000_000, "Qauy 3");
        (await service.RefusedAsync("sefa", aside, unlisted)).ShouldBe(near);
        await sefa.WriteAsync(aside, unlisted with { Depot = "QUAY 3" }, Ct);
        (await sefa.PartAsync("ENTRY0003C", Ct)).Now!.Holder.ShouldBe(new Holder(HolderKind.Depot, "Quay 3"));
    }

    [Theory]
    [InlineData("", "Say which depot it is in.")]
    [InlineData("van of ", "no engineer here")]
    [InlineData("Qu\0ay 3", "depot has a character U+0000 in it")]
    public async Task What_is_no_name_of_a_place_is_refused_in_words(string depot, string says)
    {
        var ticket = await service.OpenAsync("FSC-0404", "3");

        var (status, sentence) = await service.RefusedAsync("sefa", ticket, new PartTakenBack("CDR12T0077002", depot));

        status.ShouldBe(422);
        sentence.ShouldContain(says);
    }

    [Fact]
    public async Task A_name_of_any_length_is_refused_or_taken_and_nothing_falls_over()
    {
        var ticket = await service.OpenAsync("FSC-0404", "1");
        foreach (var length in new[] { 200, 201, 100_000 })
            await Should.NotThrowAsync(async () =>
            {
                try
                {
                    await service.WriteAsync("sefa", ticket, new PartTakenBack("CDR12T0077003", new string('k', length)));
                }
                catch (ApiProblem no) when ((int)no.Status is 413 or 422)
                {
                    // said in words
                }
            });
    }

    [Fact]
    public async Task A_label_that_was_misread_makes_no_second_part_of_one_that_is_there()
    {
        var sefa = await WithPartAsync("C8LOOK0001");
        ReceiveAsk misread = new(Id, "C8LOOKOOO1", Depot("Windmill"), "Cindral C8", Bytes);

        var asked = await sefa.ReceiveAsync(misread, Ct);
        var out1 = await sefa.HandOutAsync(new(Id, "C8LOOKOOO1", "ilka"), Ct);

        const string says = "Nothing is known of C8LOOKOOO1; C8LOOK0001 in depot Windmill, shelf B2 reads nearly the same. ";
        (asked.Asks, asked.Says).ShouldBe((true, $"{says}Read the label again, or say that it is as read."));
        (out1.Asks, out1.Says).ShouldBe((true, $"{says}Receive it first."));
        (await sefa.ReceiveAsync(misread with { Id = Id, AsRead = true }, Ct)).Says.ShouldStartWith("C8LOOKOOO1 is new here");
        (await sefa.ReceiveAsync(new(Id, "C8LOOK0002", Depot("Windmill"), "Cindral C8", Bytes), Ct)).Asks.ShouldBeFalse(); // the next of a batch
    }
}
