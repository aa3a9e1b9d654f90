using System.Text;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Service.Tests.Returns;

/// <summary>
/// Whatever a part's model is called, and whether any list has it or the machine: what its bytes and its own history say is held
/// against it, and it is counted with its like.
/// </summary>
public sealed class JudgedPartsTests(PeopledService service) : IClassFixture<PeopledService>
{
    private const long Large = 14_000_000_000_000;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task ListedAsync(string kind, string csv) =>
        (
            await (await service.AsAsync("lioth")).ImportAsync(kind, new MemoryStream(Encoding.UTF8.GetBytes(csv)), false, false, Ct)
        ).Problems.ShouldBeEmpty();

    [Theory]
    [InlineData("Cindral C12T", "JUDGED0001")]
    [InlineData("c12t", "JUDGED0002")]
    [InlineData("Tollworth T1", "JUDGED0003")]
    public async Task What_carries_old_data_goes_to_no_ticket_before_it_is_wiped(string model, string serial)
    {
        var sefa = await service.AsAsync("sefa");
        var first = await service.OpenAsync("FSC-0409", serial[^1..]);
        var reserved = new PartReserved(serial, model, Large, "Attic");
        await service.WriteAsync("sefa", first, reserved);
        await service.WriteAsync("sefa", first, new PartIssued(serial, "ilka"));
        await service.WriteAsync("ilka", first, new PartGivenUp(serial, NoReplacement.CarriesOldData));
        var second = await service.OpenAsync("FSC-0203", serial[^1..]);

        (await service.RefusedAsync("sefa", second, reserved)).Sentence.ShouldContain("no wipe is on record"); // in ilka's hands
        await sefa.ReceiveAsync(new(Guid.CreateVersion7(), serial, new(HolderKind.Depot, "Attic")), Ct);
        (await service.RefusedAsync("sefa", second, reserved)).Sentence.ShouldContain("no wipe is on record"); // on its shelf again

        await sefa.WipeAsync(new(Guid.CreateVersion7(), serial, "Sanitize command"), Ct);
        await service.WriteAsync("sefa", second, reserved);
    }

    [Theory, InlineData("Cindral C12T", "SMALL0001A"), InlineData("C12t", "SMALL0002A"), InlineData("Tollworth T1", "SMALL0003A")]
    public async Task A_part_that_stores_knows_to_be_too_small_is_not_made_larger_by_whoever_asks_for_it(string model, string serial)
    {
        var sefa = await service.AsAsync("sefa");
        await sefa.ReceiveAsync(new(Guid.CreateVersion7(), serial, new(HolderKind.Depot, "Attic"), model, 4_000_000_000_000), Ct);
        var ticket = await service.OpenAsync("FSC-0203", "5");

        (await service.RefusedAsync("sefa", ticket, new PartReserved(serial, model, Large, "Attic"))).Sentence.ShouldStartWith(
            $"{serial} does not fit: It has 4,000,787,030,016 bytes; "
        );
    }

    [Fact]
    public async Task What_a_list_says_never_works_is_said_of_the_part_whatever_its_label_calls_it()
    {
        await ListedAsync("qualified", "appliance-model,drive-model,not-because\nostlane-r8,Tollworth T9,it forgets what it was told\n");
        var ticket = await service.OpenAsync("FSC-0203", "5");
        var reserved = new PartReserved("NEVER0001A", "tollworth  t9", Large, "Attic");

        (await service.RefusedAsync("sefa", ticket, reserved)).Sentence.ShouldContain("is known not to work in ");

        await service.WriteAsync("sefa", ticket, reserved with { OverruledBecause = "Its maker has mended that since." });
        (await (await service.AsAsync("sefa")).TicketAsync(ticket, Ct)).Part?.OverruledBecause.ShouldNotBeNull();
    }

    [Fact]
    public async Task One_model_is_one_line_on_its_shelf_whoever_named_it()
    {
        var sefa = await service.AsAsync("sefa");
        foreach (
            var (model, nth) in new[] { "Cindral C12T", "cindral c12t", "C12T", "Tollworth T1", "tollworth  T1" }.Select((m, i) => (m, i))
        )
            await sefa.ReceiveAsync(new(Guid.CreateVersion7(), $"ALIKE{nth}ZZZZ", new(HolderKind.Depot, "Belfry"), model, Large), Ct);

        (await sefa.StoresAsync("Belfry", Ct))
            .Shelves.Select(s => (s.Model, s.There, s.Free))
            .ShouldBe([("Cindral C12T", 3, 3), ("Tollworth T1", 2, 2)]);
    }

    /// <summary>It was set aside, that was not so, another ticket took it: that it was so after all would give one part to two.</summary>
    [Fact]
    public async Task What_was_not_so_is_not_so_again_once_another_ticket_has_the_part()
    {
        var (first, second) = (await service.OpenAsync("FSC-0409", "7"), await service.OpenAsync("FSC-0203", "7"));
        var part = new PartReserved("TAKENBACK1", "Cindral C12T", Large, "Attic");
        var reserved = await service.WriteAsync("sefa", first, part);
        var notSo = await service.WriteAsync("sefa", first, new EntryCorrected(reserved.Id, "I took the wrong line of the list."));
        await service.WriteAsync("sefa", second, part);
        var soAfterAll = new EntryCorrected(notSo.Id, "It was the right line.");

        (await service.RefusedAsync("sefa", first, soAfterAll)).Sentence.ShouldStartWith(
            $"TAKENBACK1 is set aside for T-{second} already."
        );

        await service.WriteAsync("sefa", second, new PartGivenUp("TAKENBACK1", NoReplacement.NotNeeded));
        await service.WriteAsync("sefa", first, soAfterAll);
        (await (await service.AsAsync("sefa")).PartAsync("TAKENBACK1", Ct)).Now!.ReservedFor.ShouldBe(first);
    }

    [Fact]
    public async Task What_was_not_so_is_not_so_again_once_the_part_carries_old_data()
    {
        var (first, second) = (await service.OpenAsync("FSC-0409", "8"), await service.OpenAsync("FSC-0203", "8"));
        var part = new PartReserved("TAKENBACK2", "Tollworth T1", Large, "Attic");
        var reserved = await service.WriteAsync("sefa", first, part);
        var notSo = await service.WriteAsync("sefa", first, new EntryCorrected(reserved.Id, "I took the wrong line of the list."));
        await service.WriteAsync("sefa", second, part);
        await service.WriteAsync("sefa", second, new PartIssued("TAKENBACK2", "ilka"));
        await service.WriteAsync("ilka", second, new PartGivenUp("TAKENBACK2", NoReplacement.CarriesOldData));

        (await service.RefusedAsync("sefa", first, new EntryCorrected(notSo.Id, "It was the right line."))).Sentence.ShouldContain(
            "no wipe is on record"
        );
    }
}
