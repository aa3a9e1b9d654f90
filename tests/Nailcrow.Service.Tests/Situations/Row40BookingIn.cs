using Nailcrow.Client.Returns;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>What comes out of a box: misread, another's, none at all, knocked about, never announced, never there.</summary>
[Collection(Stories.Name)]
public sealed class Row40BookingIn(TheFirm firm)
{
    private static readonly Holder Shelf = new(HolderKind.Depot, "Stores", "B2");

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    /// <summary>A swap is done, and the old drive is on its way to stores.</summary>
    private async Task<(Story Story, string Old)> SentAsync()
    {
        var story = await new Story(firm).OnSiteAsync();
        var old = story.Machine.Serial("2");
        await story.StartAsync();
        await story.FollowAsync();
        await story.DoesAsync(
            "ilka",
            new ReturnOpened(old, ReturnReason.BackToStores, Shelf with { Shelf = null }, DataAgreedBy: "R. Alder")
        );
        await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight", "GW-1"));
        return (story, old);
    }

    private static ReceiveAsk Ask(string serial) => new(Guid.CreateVersion7(), serial, Shelf);

    [Fact]
    public async Task A_serial_read_at_the_desk_finds_the_return_that_it_belongs_to()
    {
        var (story, old) = await SentAsync();
        var ask = Ask(old);

        var answer = await (await story.AsAsync("sefa")).ReceiveAsync(ask, Ct);
        var again = await (await story.AsAsync("sefa")).ReceiveAsync(ask, Ct);

        (answer.Ticket, answer.Asks, answer.Now!.Holder).ShouldBe((story.Ticket, false, Shelf));
        again.Says.ShouldContain("already");
        (await story.ViewAsync()).Returns.Single().ArrivedAt.ShouldNotBeNull();
    }

    [Fact]
    public async Task A_label_in_the_box_whose_code_has_an_identifier_is_the_drive_it_means()
    {
        var (story, old) = await SentAsync();

        await story.DoesAsync("sefa", new ReturnArrived(old, $"S{old}"));

        var view = await story.ViewAsync();
        view.Discrepancies.ShouldBeEmpty();
        view.Returns.Single().ArrivedAt.ShouldNotBeNull();
        view.Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Depot);
    }

    [Fact]
    public async Task A_misread_serial_is_asked_about_and_calls_no_lead()
    {
        var (story, old) = await SentAsync();
        var misread = $"{old[..^1]}{(old[^1] == '8' ? '3' : '8')}";

        var middle = Enumerable.Range(1, old.Length - 2).Where(i => old[i] != old[i - 1]).MinBy(i => Math.Abs(i - old.Length / 2));
        var swapped = $"{old[..(middle - 1)]}{old[middle]}{old[middle - 1]}{old[(middle + 1)..]}";

        foreach (var read in new[] { misread, swapped, old[1..], old[..^1], $"{old}7" })
        {
            var answer = await (await story.AsAsync("sefa")).ReceiveAsync(Ask(read), Ct);
            answer.Asks.ShouldBeTrue(read);
            answer.Says.ShouldContain(old, Case.Sensitive, read);
        }
        (await story.ViewAsync()).Discrepancies.ShouldBeEmpty();
        var insisted = await (await story.AsAsync("sefa")).ReceiveAsync(
            Ask(misread) with
            {
                AsRead = true,
                Model = "Cindral C8",
                Bytes = 8_000_000_000_000,
            },
            Ct
        );
        insisted.Says.ShouldStartWith($"{misread} is new here");
    }

    [Fact]
    public async Task What_is_in_the_wrong_box_is_booked_in_where_it_belongs_in_one_step()
    {
        var (one, inOne) = await SentAsync();
        var (two, inTwo) = await SentAsync();

        await one.DoesAsync("sefa", new ReturnArrived(inOne, inTwo, Shelf: "B2"));

        (await two.ViewAsync()).Returns.Single().ArrivedAt.ShouldNotBeNull();
        (await two.ViewAsync()).Discrepancies.ShouldBeEmpty();
        var view = await one.ViewAsync();
        view.Returns.Single().ArrivedAt.ShouldBeNull();
        view.Discrepancies.Single().Sentence.ShouldContain($"The box for {inOne} held something else");
        (await one.ToldAsync()).ShouldContain(told => told.Contains($"{inTwo}, which was in the box, belongs to"));
    }

    [Fact]
    public async Task An_empty_box_and_a_damaged_one_are_told_and_neither_is_taken_for_the_other()
    {
        var (story, old) = await SentAsync();
        (await story.RefusedAsync("sefa", new ReturnArrived(old, ""))).Sentence.ShouldContain("say that the box is empty");

        await story.DoesAsync("sefa", new ReturnArrived(old, null, BoxState.Empty));
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Carrier);
        await story.DoesAsync("sefa", new ReturnArrived(old, old, BoxState.Damaged));

        var view = await story.ViewAsync();
        view.Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Depot);
        view.Discrepancies.Select(d => d.Sentence)
            .ShouldBe([
                $"The box for {old} was empty. Claim it from the carrier, and look for it.",
                $"{old} arrived damaged. Claim it from the carrier, with a picture.",
            ]);
    }

    [Fact]
    public async Task What_nobody_announced_is_taken_back_on_the_ticket_that_had_it()
    {
        var story = await new Story(firm).OnSiteAsync();
        await story.DoesAsync("ilka", new Nailcrow.Core.Tickets.Planning.LeftSite(Nailcrow.Core.Tickets.Planning.VisitEnd.AnotherDay));

        var answer = await (await story.AsAsync("sefa")).ReceiveAsync(Ask(story.Parts[0]), Ct);

        answer.Says.ShouldBe($"{story.Parts[0]} is taken back from T-{story.Ticket}; it was with engineer ilka.");
        (await story.ViewAsync()).Part!.IssuedTo.ShouldBeNull();
        var next = await (await story.AsAsync("sefa")).HandOutAsync(new(Guid.CreateVersion7(), story.Parts[0], "ilka"), Ct);
        next.Ticket.ShouldBe(story.Ticket); // it is still this ticket's, for the next visit
    }

    [Fact]
    public async Task What_came_back_is_looked_at_by_itself_and_stands_in_a_list_until_somebody_has()
    {
        var (story, old) = await SentAsync();
        var sefa = await story.AsAsync("sefa");
        (await story.RefusedAsync("sefa", new ReturnInspected(old, InspectionFinding.AsAnnounced))).Sentence.ShouldBe(
            $"{old} has not arrived yet; book it in first."
        );
        await sefa.ReceiveAsync(Ask(old), Ct);
        (await sefa.StoresAsync(null, Ct)).ToInspect.ShouldContain(p => p.Serial == old && p.Ticket == story.Ticket);
        (await story.ViewAsync("sefa")).Moves.Count(m => m.Body is ReturnInspected && m.WhyNot is null).ShouldBe(2);
        (await story.ViewAsync("ilka")).Moves.Count(m => m.Body is ReturnInspected && m.WhyNot is null).ShouldBe(0); // stores looks, and nobody else

        (await story.RefusedAsync("sefa", new ReturnInspected(old, InspectionFinding.Damaged))).Sentence.ShouldBe("Say what you saw.");
        (await story.RefusedAsync("sefa", new ReturnInspected("P8NOBODYS1", InspectionFinding.AsAnnounced))).Sentence.ShouldBe(
            "No return for P8NOBODYS1 was opened on this ticket."
        );
        await story.DoesAsync("sefa", new ReturnInspected(old, InspectionFinding.Damaged, "Its connector is bent"));

        (await story.ViewAsync()).Discrepancies.ShouldContain(d =>
            d.Sentence.Contains($"{old} is not as it was sent: damaged. Its connector is bent.")
        );
        await story.StartsAnewAsync();
        sefa = await story.AsAsync("sefa");
        (await sefa.StoresAsync(null, Ct)).ToInspect.ShouldNotContain(p => p.Serial == old);
        (await sefa.PartAsync(old, Ct)).Told.ShouldContain("Looked at. Damaged. Its connector is bent.");
        var looked = await story.LastAsync<ReturnInspected>();
        await story.DoesAsync("lioth", new EntryCorrected(looked.Id, "It was another one.")); // and then this one was not looked at yet
        (await sefa.StoresAsync(null, Ct)).ToInspect.ShouldContain(p => p.Serial == old);
        await story.DoesAsync("sefa", new ReturnInspected(old, InspectionFinding.AsAnnounced));
        (await story.ViewAsync()).Returns.Single().Found.ShouldBe("as announced");
    }

    [Fact]
    public async Task A_part_that_was_never_announced_or_lies_where_it_always_lay_is_not_looked_at()
    {
        var sefa = await firm.AsAsync("sefa");
        await sefa.ReceiveAsync(Ask("P8BOUGHT01") with { Model = "Cindral C8", Bytes = 8_000_000_000_000 }, Ct);
        await sefa.MovePartsAsync(new(Guid.CreateVersion7(), ["P8BOUGHT01"], new(HolderKind.Depot, "Hill")), Ct);

        (await sefa.StoresAsync(null, Ct)).ToInspect.ShouldNotContain(p => p.Serial == "P8BOUGHT01");
    }

    [Fact]
    public async Task What_never_arrives_is_late_and_a_lead_writes_it_off()
    {
        var story = await new Story(firm).OnSiteAsync();
        var old = story.Machine.Serial("2");
        await story.StartAsync();
        await story.FollowAsync();
        var due = DateOnly.FromDateTime(DateTime.UtcNow.AddDays(-1));
        await story.DoesAsync("ilka", new ReturnOpened(old, ReturnReason.BackToStores, Shelf, DueBy: due, DataAgreedBy: "R. Alder"));
        await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight"));
        var sefa = await story.AsAsync("sefa");
        (await sefa.StoresAsync(null, Ct)).Late.ShouldContain(p => p.Serial == old && p.DueBy == due);

        await story.DoesAsync("lioth", new PartLost(old, "The carrier has no trace of it", "The trust's scans"));

        (await sefa.StoresAsync(null, Ct)).Late.ShouldNotContain(p => p.Serial == old);
        (await sefa.PartAsync(old, Ct)).Movements[^1].Kind.ShouldBe(MovementKind.Went);
    }
}
