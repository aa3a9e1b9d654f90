using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The old drive is destroyed on site: how, before whose eyes, under which certificate, with a picture.</summary>
[Collection(Stories.Name)]
public sealed class Row38DestroyedThere(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static readonly byte[] Picture = [0xFF, 0xD8, 0xFF, 0xE0, 1, 2, 3, 0xFF, 0xD9];

    [Fact]
    public async Task It_is_accounted_for_with_method_witness_certificate_and_picture()
    {
        var story = await new Story(firm).OnSiteAsync();
        var old = story.Machine.Serial("2");
        await story.StartAsync();
        await story.FollowAsync();
        (await story.RefusedAsync("ilka", new DriveDestroyed(old, "Drilled through twice", ""))).Sentence.ShouldBe(
            "Write down who saw it destroyed."
        );

        await story.DoesAsync("ilka", new DriveDestroyed(old, "Drilled through twice", "R. Alder", "DC-0417"));
        using var content = new MemoryStream(Picture);
        await (await story.AsAsync("ilka")).KeepPhotoAsync(
            story.Ticket,
            Guid.CreateVersion7(),
            content,
            null,
            "The drive, drilled",
            TestContext.Current.CancellationToken,
            of: old.ToLowerInvariant()
        );
        (await story.ViewAsync()).Photos.Single().Of.ShouldBe(old);
        (
            await Should.ThrowAsync<Nailcrow.Client.ApiProblem>(async () =>
                await (await story.AsAsync("ilka")).KeepPhotoAsync(
                    story.Ticket,
                    Guid.CreateVersion7(),
                    new MemoryStream(Picture),
                    null,
                    null,
                    TestContext.Current.CancellationToken,
                    of: "SOMEBODYS01"
                )
            )
        ).Message.ShouldContain("is no drive that this ticket moved");
        var closed = await story.ClosesAsync();

        closed.Stage.ShouldBe(Stage.Closed);
        closed.Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Destroyed);
        (await story.ReportSaysAsync()).ShouldContain(line => line.Contains("Drilled through twice") && line.Contains("DC-0417"));
    }

    [Fact]
    public async Task What_we_destroy_comes_to_a_depot_first_and_what_is_evidence_is_kept_there_as_it_is()
    {
        var stores = new Holder(HolderKind.Depot, "Stores");
        async Task<(Story, string)> CameAsync(ReturnReason why)
        {
            var story = new Story(firm);
            var old = await story.SwappedAsync();
            (
                await story.RefusedAsync(
                    "ilka",
                    new ReturnOpened(old, why, new(HolderKind.Maker, "Cindral"), "RX-1", DataAgreedBy: "R. Alder")
                )
            ).Sentence.ShouldContain("goes to a depot");
            (
                await story.RefusedAsync("ilka", new ReturnOpened(old, ReturnReason.BackUnopened, stores, DataAgreedBy: "R. Alder"))
            ).Sentence.ShouldBe($"{old} came out of the machine; it is no part that nobody needed. Say back-to-stores.");
            await story.DoesAsync("ilka", new ReturnOpened(old, why, stores, DataAgreedBy: "R. Alder"));
            await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight"));
            await story.DoesAsync("sefa", new ReturnArrived(old, old));
            return (story, old);
        }

        var sefa = await firm.AsAsync("sefa");
        var (ours, shredded) = await CameAsync(ReturnReason.ToBeDestroyed);
        var desk = await sefa.StoresAsync(null, Ct);
        desk.Apart.Single(p => p.Serial == shredded).Apart.ShouldBe(Nailcrow.Core.Returns.Ledger.SetApart.ToBeDestroyed);
        desk.ToWipe.ShouldNotContain(p => p.Serial == shredded);
        (await ours.ViewAsync("sefa")).Moves.Single(m => m.Body is DriveDestroyed).WhyNot.ShouldBeNull();
        await ours.DoesAsync("sefa", new DriveDestroyed(shredded, "Shredded to 6 mm", "Lioth Arnesk", "DC-77"));
        (await ours.ViewAsync()).Held.Single(h => h.Serial == shredded).Holder.Kind.ShouldBe(HolderKind.Destroyed);

        var (kept, evidence) = await CameAsync(ReturnReason.Evidence);
        var moves = (await kept.ViewAsync("sefa")).Moves;
        moves.Select(m => m.Move).ShouldNotContain(Move.DestroyDrive);
        moves.Select(m => m.Move).ShouldNotContain(Move.RecordWipe);
        (await kept.ViewAsync()).Held.Single(h => h.Serial == evidence).Holder.ShouldBe(stores);
        desk = await sefa.StoresAsync(null, Ct);
        desk.Apart.ShouldNotContain(p => p.Serial == shredded);
        desk.Apart.Single(p => p.Serial == evidence).Apart.ShouldBe(Nailcrow.Core.Returns.Ledger.SetApart.Evidence);
        desk.ToWipe.ShouldNotContain(p => p.Serial == evidence);
        var other = await new Story(firm).OnSiteAsync(parts: 0);
        (await sefa.BringAsync(other.Ticket, Ct)).Parts.ShouldNotContain(p => p.Part.Serial == evidence);
        (await other.RefusedAsync("sefa", new PartReserved(evidence, "Cindral C8", 8_000_000_000_000, "Stores"))).Status.ShouldBe(409);
    }
}
