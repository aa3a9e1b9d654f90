using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>
/// The rebuild may be chosen to copy less, and others may have agreed to leave the machine alone meanwhile; it may be the operating
/// system's work, which then has to be up.
/// </summary>
[Collection(Stories.Name)]
public sealed class Row53TheRebuildHasAMode(TheFirm firm)
{
    [Fact]
    public async Task A_machine_that_was_off_starts_its_system_before_the_rebuild_is_started()
    {
        var story = await new Story(firm, "ostlane-s2").OnSiteAsync();
        await story.StartAsync();
        await story.FollowAsync("boot");
        await story.StartsAnewAsync();

        var closed = await story.ClosesAsync();

        closed.Stage.ShouldBe(Stage.Closed);
        var steps = closed.Run!.Visits.Select(v => v.Step).ToList();
        steps.IndexOf("boot").ShouldBeInRange(steps.IndexOf("power-on"), steps.IndexOf("start"));
    }

    [Fact]
    public async Task What_was_chosen_and_agreed_is_told_with_the_time_left_and_in_the_report()
    {
        const string Told = "The rebuild copies only the space that is used, as was chosen. Agreed: R. Alder: no backups until Monday";
        var story = await new Story(firm).AtAsync("joined");
        story.ComesToToday();
        story.Waits(TimeSpan.FromMinutes(20)); // the last reading is of just now
        for (var percent = 1; percent <= 5; percent++)
            await story.DoesAsync(
                "ilka",
                new ReadingTaken(Machine.Array, Progress.Running, RebuildPhase.Rebuilding, Reading.Person, percent)
            );
        (await story.ViewAsync()).Rebuild.Look.Left!.Least.ShouldBeGreaterThan(TimeSpan.Zero);

        await story.DoesAsync("ilka", new RebuildChosen(RebuildCopies.UsedSpace, "R. Alder: no backups until Monday"));
        await story.StartsAnewAsync();

        var rebuild = (await story.ViewAsync()).Rebuild;
        (rebuild.Chosen, rebuild.Look.Left!.Least).ShouldBe((Told, TimeSpan.Zero)); // what is used may be over at any time
        await story.ClosesAsync();
        (await story.ReportSaysAsync()).ShouldContain($"What was done: {Told}");
    }
}
