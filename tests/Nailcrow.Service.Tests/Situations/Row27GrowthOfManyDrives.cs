using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Larger drives go in one by one, stopped half-way for weeks; what it gives is held against what was forecast.</summary>
[Collection(Stories.Name)]
public sealed class Row27GrowthOfManyDrives(TheFirm firm)
{
    private const long TB = 1_000_000_000_000;

    [Fact]
    public async Task Each_drive_has_its_own_part_and_order_the_job_rests_for_weeks_and_less_than_hoped_goes_to_a_lead()
    {
        var story = new Story(firm);
        await story.IsKnownAsync();
        await story.ReportedAsync(new(story.Asset, "More space is wanted", JobKind.Growth));
        await story.DoesAsync("lioth", new DrivesChosen([.. Enumerable.Range(1, 6).Select(b => story.Machine.Serial($"{b}"))]));
        for (var drive = 0; drive < 6; drive++)
            await story.PartAsync(bytes: 12 * TB);
        (await story.ViewAsync()).Space.ShouldBe([
            "Before: 32 TB (29.1 TiB) by the sizes of its drives.",
            "Forecast: 48.01 TB (43.66 TiB), 16.01 TB (14.56 TiB) more, once all 6 drives are exchanged; 0 are.",
        ]);
        await story.DoesAsync("ilka", new ArrivedOnSite());
        await story.StartAsync();
        await story.FollowAsync("usable-before");
        await story.AnswersAsync("31.5 TB");
        await story.FollowAsync("which.2");

        await story.DoesAsync(
            "ilka",
            new PutOnHold("The customer needs the machine until spring.", Until: DateTimeOffset.UtcNow.AddDays(40))
        );
        await story.StartsAnewAsync();
        var resting = await story.ViewAsync();
        resting.Next.Say.ShouldContain("On hold");
        resting.Space[1].ShouldEndWith("once all 6 drives are exchanged; 1 is.");
        await story.DoesAsync("ilka", new HoldLifted());

        await story.FollowAsync("usable");
        await story.AnswersAsync("40 TB");
        await story.AnswersAsync("no");
        (await story.StepAsync()).ShouldBe("less-than-hoped");
        await story.CallsAsync(goAhead: true, "The screen counts a reserve; it is right so.");
        await story.AnswersAsync("done");
        var closed = await story.ClosesAsync();

        closed.Stage.ShouldBe(Stage.Closed);
        closed.EarlierSwaps.Select(s => s.InSerial).Append(closed.Swap.InSerial).ShouldBe(story.Parts);
        (await story.ReportSaysAsync())
            .Where(l => l.StartsWith("What the array holds:", StringComparison.Ordinal))
            .Select(l => l.Split(": ")[1])
            .ShouldBe(["Before", "Forecast", "Seen", "Seen"]);
    }
}
