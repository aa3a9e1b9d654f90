using Nailcrow.Core.Appliances;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Firmware was changed on the way: the machine shows more bays and names some anew. That is no change of drives.</summary>
[Collection(Stories.Name)]
public sealed class Row60NamedAnew(TheFirm firm)
{
    [Fact]
    public async Task More_bays_and_other_names_are_no_other_drives_and_the_run_comes_to_its_end()
    {
        var story = await new Story(firm).AtAsync("whole");
        story.Machine["7"] = new("7", BayRole.Empty); // was never listed before
        story.Machine.NamesAnew("5", "05");
        story.Machine.Finishes();
        await story.LooksAsync();
        await story.StartsAnewAsync();
        (await story.BesideAsync()).ShouldBeEmpty();

        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Changes.Where(c => c.OtherDrive).Select(c => c.Bay).ShouldBe(["2"]);
        closed.Changes.ShouldContain(c => c.Sentence == "Bay 05 is what was bay 5.");
    }

    [Fact]
    public async Task A_drive_that_was_not_there_before_is_another_drive_whatever_its_bay_is_called()
    {
        var story = await new Story(firm).AtAsync("whole");
        story.Machine.Finishes();
        story.Machine["8"] = new("8", BayRole.Unclaimed, Serial: story.Machine.Stranger("8"));
        await story.LooksAsync();
        await story.StartsAnewAsync();

        (await Should.ThrowAsync<InvalidOperationException>(() => story.FollowAsync())).Message.ShouldContain(
            $"Bay 8 is in only one of the two snapshots, with {story.Machine.Stranger("8")} in it."
        );
    }
}
