using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A drive is lost or stolen: only a lead writes it off, with what was on it; found again, it is booked in.</summary>
[Collection(Stories.Name)]
public sealed class Row43LostOrStolen(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_lead_writes_it_off_and_what_turns_up_again_is_told_on_the_closed_ticket()
    {
        var story = await new Story(firm).OnSiteAsync();
        var old = story.Machine.Serial("2");
        await story.StartAsync();
        await story.FollowAsync();
        var lost = new PartLost(old, "The van was broken into in the night; reported", "The trust's scans, not encrypted");
        (await story.RefusedAsync("ilka", lost)).Status.ShouldBe(403);
        (await story.RefusedAsync("lioth", lost with { OnIt = "" })).Sentence.ShouldBe("Say what was on it: whose data, or none.");
        (await story.RefusedAsync("lioth", lost with { Serial = story.Parts[0] })).Sentence.ShouldContain("is with bay 2");

        await story.DoesAsync("lioth", lost);
        var closed = await story.ClosesAsync();

        closed.Stage.ShouldBe(Stage.Closed);
        closed.Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Lost);
        (await story.ReportSaysAsync()).ShouldContain(line => line.Contains("not encrypted"));
        var found = await (await story.AsAsync("sefa")).ReceiveAsync(
            new(Guid.CreateVersion7(), old, new(HolderKind.Depot, "Stores", "B2")),
            Ct
        );
        found.Says.ShouldBe($"{old} is in depot Stores, shelf B2 now; by the record it was lost.");
        found.Now!.UnwipedFrom.ShouldBe(story.Asset);
    }

    [Fact]
    public async Task What_nobody_finds_on_its_shelf_is_written_off_there()
    {
        var story = new Story(firm);
        var (sefa, lioth) = (await story.AsAsync("sefa"), await story.AsAsync("lioth"));
        var shelf = new Holder(HolderKind.Depot, "Stores", "D9");
        await sefa.ReceiveAsync(new(Guid.CreateVersion7(), "LOST4SHELF77", shelf, "Cindral C8", 8_000_000_000_000), Ct);
        var off = new Client.Returns.WriteOffAsk(Guid.CreateVersion7(), "LOST4SHELF77", "Counted three times", "Nothing, it was new");
        ((int)(await Should.ThrowAsync<Client.ApiProblem>(() => sefa.WriteOffAsync(off, Ct))).Status).ShouldBe(403);

        (await lioth.WriteOffAsync(off, Ct)).Now!.Holder.Kind.ShouldBe(HolderKind.Lost);
    }
}
