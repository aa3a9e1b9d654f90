using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The customer keeps the old drive: somebody there took it, by name, and that is where it stays.</summary>
[Collection(Stories.Name)]
public sealed class Row37TheCustomerKeepsIt(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Handed_over_by_name_it_balances_and_the_ticket_closes()
    {
        var story = await new Story(firm).OnSiteAsync();
        var old = story.Machine.Serial("2");
        await story.StartAsync();
        await story.FollowAsync();
        var offered = (await story.ViewAsync()).Moves.Single(m => m.Move == Move.KeepDrive);
        (offered.About, offered.WhyNot).ShouldBe((old, null));
        (await story.RefusedAsync("ilka", new DriveKept(old, " "))).Sentence.ShouldBe("Write down who at the customer took the drive.");

        await story.DoesAsync("ilka", new DriveKept(old, "R. Alder", "As their contract says"));
        await story.StartsAnewAsync();
        await story.DoesAsync("ilka", new CustomerSignedOff("R. Alder"));
        await story.DoesAsync("ilka", new TicketClosed());

        var view = await story.ViewAsync();
        view.Stage.ShouldBe(Stage.Closed);
        view.Held.Single(h => h.Serial == old).MayKeep.ShouldBeTrue();
        (await story.ReportSaysAsync()).ShouldContain(line => line.Contains(old) && line.Contains("customer"));
        var part = await (await story.AsAsync("sefa")).PartAsync(old, Ct);
        part.Now!.Holder.Kind.ShouldBe(HolderKind.Customer);
        part.Movements.Select(m => (m.Kind, m.To?.Kind))
            .ShouldBe([(MovementKind.Went, HolderKind.Engineer), (MovementKind.Went, HolderKind.Customer)]);
    }

    [Fact]
    public async Task A_return_that_was_announced_for_it_is_off()
    {
        var story = await new Story(firm).OnSiteAsync();
        var old = story.Machine.Serial("2");
        await story.StartAsync();
        await story.FollowAsync();
        await story.DoesAsync(
            "ilka",
            new ReturnOpened(old, ReturnReason.BackToStores, new(HolderKind.Depot, "Stores"), DataAgreedBy: "R. Alder")
        );

        await story.DoesAsync("ilka", new DriveKept(old, "R. Alder"));

        (await story.ViewAsync()).Returns.ShouldBeEmpty();
        (await story.RefusedAsync("sefa", new ReturnArrived(old, old))).Sentence.ShouldStartWith($"No return for {old} is open");
    }

    [Fact]
    public async Task One_that_never_moved_is_asked_about()
    {
        var story = await new Story(firm).OnSiteAsync();

        await story.DoesAsync("ilka", new DriveKept("ZZ99STRANGER1", "R. Alder"));

        (await story.ViewAsync()).Discrepancies.Single().Sentence.ShouldContain("nobody has recorded it on this ticket before");
    }
}
