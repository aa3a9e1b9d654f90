using Nailcrow.Core.Appliances;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The rebuild does not start, starts on another drive, or was over before anybody looked: told apart.</summary>
[Collection(Stories.Name)]
public sealed class Row22TheRebuildDoesNotStart(TheFirm firm)
{
    [Fact]
    public async Task It_has_not_begun_and_the_gate_says_so_until_it_has()
    {
        var story = await new Story(firm).AtAsync("started");
        story.Machine["2"] = story.Machine["2"] with { Role = BayRole.Unclaimed, Array = null };
        await story.LooksAsync();
        await story.StartsAnewAsync();
        (await story.ViewAsync()).Run!.Unmet.ShouldNotBeNull();

        story.Machine["2"] = story.Machine["2"] with { Role = BayRole.Filling, Array = Machine.Array };
        await story.LooksAsync();
        (await story.ViewAsync()).Run!.Unmet.ShouldBeNull();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task It_runs_onto_another_drive_and_is_not_taken_for_this_one()
    {
        var story = new Story(firm);
        story.Machine.HasASpare();
        await story.AtAsync("started");
        story.Machine["7"] = story.Machine["7"] with { Role = BayRole.Filling, Array = Machine.Array };
        story.Machine["2"] = story.Machine["2"] with { Role = BayRole.Unclaimed, Array = null };
        await story.LooksAsync();
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Run!.Unmet.ShouldNotBeNull().ShouldStartWith("The rebuild runs onto bay 7");

        story.Machine.Finishes();
        await story.LooksAsync();
        (await story.ViewAsync()).Run!.Outdated.ShouldNotBeNull();
        await story.StartAsync();
        story.Forgets();
        (await story.ViewAsync()).Run!.Visits.ShouldContain(v => v.Step == "insert"); // nobody pulls it once more
        story.Machine["2"] = story.Machine["2"] with { Role = BayRole.Spare };
        var closed = await story.ClosesAsync();
        (closed.Stage, closed.Swap.InSerial).ShouldBe((Stage.Closed, story.Parts[0]));
    }

    [Fact]
    public async Task It_was_over_before_the_first_look()
    {
        var story = await new Story(firm).AtAsync("started");
        story.Machine.Finishes();
        await story.LooksAsync();
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Run!.Unmet.ShouldBeNull();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
