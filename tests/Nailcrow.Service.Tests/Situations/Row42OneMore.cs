using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A drive is added in an empty bay, as an extra spare and with consent: its own sheet, without a pull.</summary>
[Collection(Stories.Name)]
public sealed class Row42OneMore(TheFirm firm)
{
    private const string Terms = "R. Alder agreed to a second spare, at the price of the offer of May";

    [Fact]
    public async Task It_goes_into_the_bay_that_was_seen_to_be_empty_and_stands_by()
    {
        var story = await WantedAsync("7");
        await story.StartAsync();
        var sheet = (await story.FollowAsync("terms")).Run!.Sheet;
        (sheet.Procedure, sheet.TargetBay, sheet.Array).ShouldBe(("one-more", "7", Machine.Array));
        sheet.Steps.ShouldNotContain(s => s.Records == Core.Procedures.Records.DrawnOut);
        await story.AnswersAsync(Terms);
        await story.FollowAsync("serial-in");
        await story.StartsAnewAsync();

        await story.FollowAsync("new-seen");
        story.Machine["7"] = story.Machine["7"] with { Role = BayRole.Spare, Array = null };
        var closed = await story.ClosesAsync();
        (closed.Stage, closed.Swap.OutSerial, closed.Swap.InSerial, closed.Swap.Bay).ShouldBe((Stage.Closed, null, story.Parts[0], "7"));
        closed.Discrepancies.ShouldBeEmpty();
        closed.Exposure.ShouldBeNull(); // nothing was ever short
        var report = await story.ReportSaysAsync();
        report.ShouldContain($"What was done: Agreed: {Terms}");
        report.ShouldContain($"What was done: {story.Parts[0]} went into bay 7.");
    }

    [Fact]
    public async Task A_bay_that_somebody_has_used_meanwhile_stays_as_it_is()
    {
        var story = await WantedAsync("7");
        await story.StartAsync();
        await story.FollowAsync("empty");
        story.Machine.Gets("7", story.Machine.Stranger("7"), BayRole.Unclaimed);
        await story.LooksAsync();
        (await story.ViewAsync()).Run!.Unmet.ShouldBe(
            $"Bay 7 holds {story.Machine.Stranger("7")} now; a drive is added in an empty bay only. Stop."
        );
    }

    [Fact]
    public async Task Where_it_is_to_go_is_said_before_a_sheet_is_made()
    {
        var story = await WantedAsync("3");
        (await Should.ThrowAsync<ApiProblem>(() => story.StartAsync())).Message.ShouldBe(
            $"Bay 3 holds {story.Machine.Serial("3")}; a drive is added in an empty bay. Empty are 7."
        );
        (await story.RefusedAsync("ilka", new DrivesChosen([story.Machine.Serial("3")]))).Sentence.ShouldStartWith(
            "A drive is added here, and none comes out"
        );
        (await Should.ThrowAsync<ApiProblem>(async () => await (await WantedAsync("7", "attic")).StartAsync())).Message.ShouldBe(
            "The report says it is for the array 'attic'; the last snapshot has vault. Cancel it, and report it with one of them."
        );
        var unnamed = await WantedAsync(null); // the only one that is empty
        await unnamed.StartAsync();
        (await unnamed.ViewAsync()).Run!.Sheet.TargetBay.ShouldBe("7");
    }

    [Fact]
    public async Task An_array_that_is_short_gets_a_swap_and_no_spare()
    {
        var story = await WantedAsync("7");
        story.Machine.Drops("2");
        await story.LooksAsync();
        (await story.BesideAsync()).ShouldHaveSingleItem().Bay.ShouldBe("2"); // what has failed has a ticket of its own
        await story.StartAsync();
        await story.FollowAsync("snapshot-before");
        await story.DoesWhatItSaysAsync();
        (await story.ViewAsync()).Run!.Unmet.ShouldBe(
            "vault is degraded with 5 of 6 members. It would rebuild onto a drive that is added now; that is a swap, on a ticket of its own."
        );
    }

    private async Task<Story> WantedAsync(string? bay, string? array = null)
    {
        var story = new Story(firm);
        await story.IsKnownAsync();
        story.Machine.Loses("7");
        await story.ReportedAsync(new FaultAsk(story.Asset, "One more spare is wanted", JobKind.Addition, Bay: bay, Array: array));
        await story.PartAsync();
        await story.DoesAsync(story.Engineer, new ArrivedOnSite());
        return story;
    }
}
