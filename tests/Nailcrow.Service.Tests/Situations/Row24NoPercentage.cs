using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The machine shows no percentage at all: what is told is what is known, and no number is made up.</summary>
[Collection(Stories.Name)]
public sealed class Row24NoPercentage(TheFirm firm)
{
    [Fact]
    public async Task It_runs_and_nobody_knows_how_far()
    {
        var story = await new Story(firm).AtAsync("joined");
        story.ComesToToday();
        for (var looks = 0; looks < 3; looks++)
        {
            await story.DoesAsync("ilka", new ReadingTaken(Machine.Array, Progress.Running, RebuildPhase.Rebuilding, Reading.Person));
            story.Waits(TimeSpan.FromMinutes(8));
        }
        await story.StartsAnewAsync();

        var look = (await story.ViewAsync()).Rebuild.Look;
        look.State.ShouldBeOneOf(RebuildState.TooEarly, RebuildState.Moving);
        look.Sentence.ShouldNotContain("%");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
