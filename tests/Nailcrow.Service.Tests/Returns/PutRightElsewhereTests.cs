using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Service.Tests.Returns;

/// <summary>
/// A slip on one ticket is noted on others by the service, where nobody can put it right: once the slip is put right, so is what it
/// meant there, and once it was so after all, so is that.
/// </summary>
public sealed class PutRightElsewhereTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static EntryCorrected NotSo(Guid entry) => new(entry, "I read the number of the box.");

    private async Task<long> SentAsync(string asset, string bay, string serial)
    {
        var ticket = await service.OpenAsync(asset, bay);
        await service.WriteAsync("ilka", ticket, new DrivePulled(bay, serial));
        var back = new ReturnOpened(serial, ReturnReason.BackToStores, new(HolderKind.Depot, "Stores"), DataAgreedBy: "R. Alder");
        await service.WriteAsync("ilka", ticket, back);
        await service.WriteAsync("ilka", ticket, new ReturnSent(serial, "Gullwing Freight"));
        return ticket;
    }

    private async Task<bool> HasComeAsync(long ticket, string serial) =>
        (await (await service.AsAsync("sefa")).TicketAsync(ticket, Ct)).Returns.Single(r => r.Serial == serial).ArrivedAt is not null;

    private async Task<HolderKind> HolderAsync(string serial) =>
        (await (await service.AsAsync("sefa")).PartAsync(serial, Ct)).Now!.Holder.Kind;

    [Fact]
    public async Task A_box_that_was_misread_as_anothers_is_not_booked_in_there_any_more()
    {
        var (ours, theirs) = (await SentAsync("FSC-0409", "1", "BOXOURS001"), await SentAsync("FSC-0422", "1", "BOXTHEIR01"));
        var booked = await service.WriteAsync("sefa", ours, new ReturnArrived("BOXOURS001", "BOXTHEIR01"));
        (await HasComeAsync(theirs, "BOXTHEIR01")).ShouldBeTrue();

        await service.WriteAsync(
            "sefa",
            ours,
            new EntryCorrected(booked.Id, "I read the number of the box.", new ReturnArrived("BOXOURS001", "BOXOURS001"))
        );

        (await HasComeAsync(ours, "BOXOURS001"), await HasComeAsync(theirs, "BOXTHEIR01")).ShouldBe((true, false));
        (await HolderAsync("BOXOURS001"), await HolderAsync("BOXTHEIR01")).ShouldBe((HolderKind.Depot, HolderKind.Carrier));
        (await (await service.AsAsync("sefa")).TicketAsync(theirs, Ct)).Discrepancies.ShouldNotContain(d => d.IsOpen);
        var told = (await (await service.AsAsync("sefa")).JournalAsync(theirs, 0, Ct)).Entries[^1];
        (told.By, (told.Body as EntryCorrected)?.Because).ShouldBe(("nailcrow", $"On T-{ours}: I read the number of the box."));
        await service.WriteAsync("sefa", theirs, new ReturnArrived("BOXTHEIR01", "BOXTHEIR01")); // and when it comes, it comes
        (await HolderAsync("BOXTHEIR01")).ShouldBe(HolderKind.Depot);
    }

    [Fact]
    public async Task A_box_that_is_put_right_to_anothers_is_booked_in_there_and_taken_back_again()
    {
        var (ours, theirs) = (await SentAsync("FSC-0409", "2", "BOXOURS002"), await SentAsync("FSC-0422", "2", "BOXTHEIR02"));
        var booked = await service.WriteAsync("sefa", ours, new ReturnArrived("BOXOURS002", "BOX4471"));

        var right = new EntryCorrected(booked.Id, "That was the box.", new ReturnArrived("BOXOURS002", "BOXTHEIR02"));
        var putRight = await service.WriteAsync("sefa", ours, right);
        (await HasComeAsync(theirs, "BOXTHEIR02"), await HolderAsync("BOXTHEIR02")).ShouldBe((true, HolderKind.Depot));

        await service.WriteAsync("sefa", ours, NotSo(putRight.Id));
        (await HasComeAsync(theirs, "BOXTHEIR02"), await HolderAsync("BOXTHEIR02")).ShouldBe((false, HolderKind.Carrier));
        await service.WriteAsync("sefa", ours, right with { Because = "It was theirs, I have it before me." });
        (await HasComeAsync(theirs, "BOXTHEIR02"), await HolderAsync("BOXTHEIR02")).ShouldBe((true, HolderKind.Depot));
    }

    [Fact]
    public async Task A_part_that_was_said_to_have_gone_in_elsewhere_is_its_tickets_again()
    {
        var (ours, theirs) = (await service.OpenAsync("FSC-0409", "3"), await service.OpenAsync("FSC-0422", "3"));
        var part = new PartReserved("GONEIN0001", "Tollworth T1", 14_000_000_000_000, "Attic");
        await service.WriteAsync("sefa", ours, part);
        var slip = await service.WriteAsync("ilka", theirs, new DriveInserted("3", "GONEIN0001"));
        var sefa = await service.AsAsync("sefa");
        (await sefa.TicketAsync(ours, Ct)).Part?.GivenUp.ShouldBe(NoReplacement.NotHere);

        var notSo = await service.WriteAsync("ilka", theirs, NotSo(slip.Id));

        (await sefa.TicketAsync(ours, Ct)).ShouldSatisfyAllConditions(
            t => t.Part.ShouldNotBeNull().GivenUp.ShouldBeNull(),
            t => t.Discrepancies.ShouldNotContain(d => d.IsOpen)
        );
        (await sefa.PartAsync("GONEIN0001", Ct)).Now!.ShouldSatisfyAllConditions(
            p => p.Holder.Kind.ShouldBe(HolderKind.Depot),
            p => p.ReservedFor.ShouldBe(ours)
        );
        await service.WriteAsync("ilka", theirs, new EntryCorrected(notSo.Id, "It was so."));
        (await sefa.TicketAsync(ours, Ct)).Part?.GivenUp.ShouldBe(NoReplacement.NotHere);
        (await HolderAsync("GONEIN0001")).ShouldBe(HolderKind.Bay);
    }

    [Fact]
    public async Task What_a_third_ticket_has_by_then_stays_with_that()
    {
        var (ours, theirs) = (await service.OpenAsync("FSC-0409", "4"), await service.OpenAsync("FSC-0422", "4"));
        var third = await service.OpenAsync("FSC-0435", "4");
        var part = new PartReserved("GONEIN0002", "Tollworth T1", 14_000_000_000_000, "Attic");
        await service.WriteAsync("sefa", ours, part);
        var slip = await service.WriteAsync("sefa", theirs, new PartIssued("GONEIN0002", "ilka"));
        await service.WriteAsync("sefa", third, part);

        await service.WriteAsync("sefa", theirs, NotSo(slip.Id));

        var sefa = await service.AsAsync("sefa");
        (await sefa.TicketAsync(ours, Ct)).Part?.GivenUp.ShouldBe(NoReplacement.NotHere);
        (await sefa.JournalAsync(ours, 0, Ct)).Told![^1].ShouldContain($"GONEIN0002 is set aside for T-{third} already.");
        (await sefa.PartAsync("GONEIN0002", Ct)).Now!.ReservedFor.ShouldBe(third);
        (await sefa.BalanceAsync(Ct)).Contradictions.ShouldBe(0);
    }

    /// <summary>It was put in at another time, or into another bay: it is elsewhere all the same.</summary>
    [Fact]
    public async Task What_is_only_put_right_as_to_when_and_where_is_not_given_back()
    {
        var (ours, theirs) = (await service.OpenAsync("FSC-0409", "6"), await service.OpenAsync("FSC-0422", "6"));
        var part = new PartReserved("GONEIN0003", "Tollworth T1", 14_000_000_000_000, "Attic");
        await service.WriteAsync("sefa", ours, part);
        var there = await service.WriteAsync("ilka", theirs, new DriveInserted("6", "GONEIN0003"));
        var sefa = await service.AsAsync("sefa");
        var setAside = (await sefa.JournalAsync(ours, 0, Ct)).Entries.Single(e => e.Body is PartReserved).RecordedAt;

        await service.WriteAsync("ilka", theirs, new EntryCorrected(there.Id, "The bay beside.", new DriveInserted("7", "GONEIN0003")));
        await service.WriteAsync("ilka", theirs, new EntryCorrected(there.Id, "Earlier.", null, setAside.AddMilliseconds(1)));

        (await sefa.TicketAsync(ours, Ct)).Part?.GivenUp.ShouldBe(NoReplacement.NotHere);
        (await sefa.PartAsync("GONEIN0003", Ct)).Now!.ReservedFor.ShouldBeNull();
        (await HolderAsync("GONEIN0003")).ShouldBe(HolderKind.Bay);
    }

    [Fact]
    public async Task What_went_in_beside_by_mistake_is_not_told_of_the_machine_any_more()
    {
        var (ours, beside) = (await service.OpenAsync("FSC-0435", "1"), await service.OpenAsync("FSC-0435", "5"));
        await service.WriteAsync("ilka", ours, new DrivePulled("1", "BESIDE0000"));
        var slip = await service.WriteAsync("ilka", ours, new DriveInserted("1", "BESIDE0001"));
        var sefa = await service.AsAsync("sefa");
        (await sefa.JournalAsync(beside, 0, Ct)).Entries.ShouldContain(e => e.Body is SwappedBeside);

        await service.WriteAsync("ilka", ours, NotSo(slip.Id));

        var page = await sefa.JournalAsync(beside, 0, Ct);
        page.Corrected!.Select(c => page.Entries.Single(e => e.Seq == c.Seq).Body.GetType()).ShouldBe([typeof(SwappedBeside)]);
    }
}
