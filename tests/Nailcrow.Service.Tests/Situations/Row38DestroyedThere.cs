using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The old drive is destroyed on site: how, before whose eyes, under which certificate, with a picture.</summary>
[Collection(Stories.Name)]
public sealed class Row38DestroyedThere(TheFirm firm)
{
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
            TestContext.Current.CancellationToken
        );
        var closed = await story.ClosesAsync();

        closed.Stage.ShouldBe(Stage.Closed);
        closed.Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Destroyed);
        (await story.ReportSaysAsync()).ShouldContain(line => line.Contains("Drilled through twice") && line.Contains("DC-0417"));
    }
}
