using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The rebuild stalls, falls back after a restart of the machine, or aborts: told apart, and nobody takes a phase for its end.</summary>
[Collection(Stories.Name)]
public sealed class Row23ItFallsBack(TheFirm firm)
{
    private static ReadingTaken Says(decimal? percent, Progress progress = Progress.Running) =>
        new(Machine.Array, progress, RebuildPhase.Rebuilding, Reading.Person, percent);

    private static async Task<RebuildState> AfterAsync(Story story, ReadingTaken reading)
    {
        await story.DoesAsync("ilka", reading);
        story.Waits(TimeSpan.FromMinutes(6));
        return (await story.ViewAsync()).Rebuild.Look.State;
    }

    [Fact]
    public async Task One_odd_reading_is_asked_for_again_two_are_a_restart_and_it_ends_whole_all_the_same()
    {
        var story = await new Story(firm).AtAsync("joined");
        story.ComesToToday();
        foreach (var percent in new[] { 20m, 30m, 40m })
            await AfterAsync(story, Says(percent));

        (await AfterAsync(story, Says(4m))).ShouldBe(RebuildState.ReadAgain);
        await story.StartsAnewAsync();
        (await AfterAsync(story, Says(6m))).ShouldBe(RebuildState.FellBack);
        (await story.ViewAsync()).Run!.Unmet.ShouldNotBeNull();

        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task It_aborts_and_that_is_no_end()
    {
        var story = await new Story(firm).AtAsync("joined");
        story.ComesToToday();
        await AfterAsync(story, Says(20m));

        (await AfterAsync(story, Says(null, Progress.Failed))).ShouldBe(RebuildState.Failed);
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Run!.Unmet.ShouldNotBeNull();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed); // it was started once more
    }
}
