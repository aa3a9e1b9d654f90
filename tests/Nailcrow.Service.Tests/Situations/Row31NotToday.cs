using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The visit ends before its work is done: no access, the customer says no, no backup, not today.</summary>
[Collection(Stories.Name)]
public sealed class Row31NotToday(TheFirm firm)
{
    [
        Theory,
        InlineData(VisitEnd.NoAccess),
        InlineData(VisitEnd.CustomerSaidNo),
        InlineData(VisitEnd.NoBackup),
        InlineData(VisitEnd.AnotherDay)
    ]
    public async Task The_ticket_goes_back_to_planning_with_what_was_learnt_and_another_visit_ends_it(VisitEnd why)
    {
        var story = await new Story(firm).OnSiteAsync();

        await story.DoesAsync("ilka", new LeftSite(why, "Ring the caretaker an hour before."));
        await story.StartsAnewAsync();

        var left = await story.ViewAsync();
        (left.Stage, left.Next.Who, left.Next.Move).ShouldBe((Stage.Planned, "dispatcher", Move.PlanVisit));
        left.Next.Say.ShouldContain("Ring the caretaker");
        await story.DoesAsync("dorrik", new EngineerAssigned("tamsel"));
        await story.DoesAsync("dorrik", new VisitPlanned(DateTimeOffset.UtcNow.AddDays(1), DateTimeOffset.UtcNow.AddDays(1).AddHours(2)));
        (await story.ViewAsync()).Next.Move.ShouldBe(Move.Arrive);
        story.Engineer = "tamsel";
        await story.DoesAsync("tamsel", new ArrivedOnSite());
        await story.LooksAsync();
        await story.StartAsync();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);

        var visits = (await story.ViewAsync()).SiteVisits;
        visits.Select(v => (v.Engineer, v.Ended)).ShouldBe([("ilka", why), ("tamsel", VisitEnd.NotSaid)]);
        (await story.ReportSaysAsync()).Count(l => l.StartsWith("Who was there:", StringComparison.Ordinal)).ShouldBe(2);
    }

    [Fact]
    public async Task A_lead_who_says_no_ends_the_run_and_another_day_it_begins_anew()
    {
        var story = await new Story(firm).AtAsync("backup");
        await story.AnswersAsync("no");
        await story.CallsAsync(goAhead: false, "No backup, no pull. The customer makes one first.");
        await story.StartsAnewAsync();

        var told = (await story.ViewAsync()).Run!;
        (told.Current!.Id, told.Unmet, told.Heard!.Answer).ShouldBe(
            ("no-backup", null, "No backup, no pull. The customer makes one first.")
        );
        told.EndsHere.ShouldBeTrue();
        (await story.ViewAsync()).Next.Say.ShouldBe("End the run: lioth said no. No backup, no pull. The customer makes one first.");
        await story.DoesWhatItSaysAsync();
        var ended = await story.ViewAsync();
        (ended.Run!.Current, ended.Run.HandedOver).ShouldBe((null, true));
        await story.DoesAsync("ilka", new LeftSite(VisitEnd.NoBackup, "They make one over night."));

        await story.DoesAsync("dorrik", new VisitPlanned(DateTimeOffset.UtcNow, DateTimeOffset.UtcNow.AddHours(2)));
        await story.DoesAsync("ilka", new ArrivedOnSite());
        await story.LooksAsync();
        await story.StartAsync();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Theory, InlineData("backup", null), InlineData("wait", "A drive is out.")]
    public async Task A_lead_who_says_no_in_a_recovery_ends_what_it_interrupted_as_well_where_that_is_safe(string at, string? open)
    {
        var story = await new Story(firm).AtAsync(at);
        await story.StartAsync("screen-frozen");
        while ((await story.ViewAsync()).Run!.Current!.Kind != Core.Procedures.StepKind.Call)
            await story.AnswersAsync(Core.Procedures.RunStep.NotSo);
        await story.CallsAsync(goAhead: false, "Leave it for today.");
        var told = (await story.ViewAsync()).Run!;
        (told.EndsHere, told.Unmet?.Contains(open ?? "", StringComparison.Ordinal)).ShouldBe((open is null, open is null ? null : true));
        if (open is not null)
            return;
        await story.DoesWhatItSaysAsync();
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Run!.HandedOver.ShouldBeTrue();
        await story.StartAsync();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task With_a_drive_out_a_lead_who_says_no_is_asked_what_becomes_of_it()
    {
        var story = await new Story(firm).AtAsync("mark-bad");
        await story.AnswersAsync(Core.Procedures.RunStep.NotSo);
        (await story.StepAsync()).ShouldBe("stuck");
        await story.CallsAsync(goAhead: false, "Leave it as it is.");
        (await story.ViewAsync()).Run!.Unmet.ShouldBe(
            "lioth refused: Leave it as it is. A drive is out. Call again and say so; with their word the sheet goes on to put it right."
        );
    }

    [Fact]
    public async Task Whoever_leaves_with_a_bay_empty_is_told_what_stands_open_and_whoever_comes_goes_on_there()
    {
        var story = await new Story(firm).AtAsync("wait");
        await story.DoesAsync("ilka", new LeftSite(VisitEnd.AnotherDay, "The building closes at six."));
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Next.Say.ShouldEndWith("Bay 2 is empty until then.");
        await story.DoesAsync("dorrik", new VisitPlanned(DateTimeOffset.UtcNow, DateTimeOffset.UtcNow.AddHours(2)));
        await story.DoesAsync("ilka", new ArrivedOnSite());
        (await story.StepAsync()).ShouldBe("wait");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task Nobody_is_said_to_have_been_there_until_the_ticket_was_closed_and_who_comes_another_day_comes_again()
    {
        var story = await new Story(firm).AtAsync("joined"); // and went home without a word, as the sheet allows
        story.Waits(TimeSpan.FromHours(20));
        await story.DoesAsync("ilka", new ArrivedOnSite());
        await story.StartsAnewAsync();
        (await story.ViewAsync()).SiteVisits.Select(v => (v.LeftAt, v.Ended)).ShouldBe([(null, VisitEnd.NotSaid), (null, null)]);

        await story.ClosesAsync();
        (await story.ReportSaysAsync()).Count(l => l.EndsWith("; when they left is not on record.", StringComparison.Ordinal)).ShouldBe(2);
        await story.DoesAsync("ilka", new LeftSite(VisitEnd.Done));
        var said = await story.ViewAsync();
        (said.SiteVisits[^1].Ended, said.SiteVisits[^1].LeftAt is null, said.Stage).ShouldBe((VisitEnd.Done, false, Stage.Closed));
        said.Discrepancies.ShouldBeEmpty();
    }

    [Fact]
    public async Task Two_who_are_there_have_each_their_own_times_and_nobody_comes_twice()
    {
        var story = await new Story(firm).OnSiteAsync();
        await story.DoesAsync("lioth", new ArrivedOnSite());
        await story.DoesAsync("ilka", new ArrivedOnSite());
        await story.DoesAsync("lioth", new LeftSite(VisitEnd.Done));
        await story.StartsAnewAsync();

        var visits = (await story.ViewAsync()).SiteVisits;
        visits.Select(v => (v.Engineer, v.LeftAt is null)).ShouldBe([("ilka", true), ("lioth", false)]);
        (await story.ViewAsync()).Stage.ShouldBe(Stage.OnSite);
        var leave = (await story.ViewAsync("sefa")).Moves.First(m => m.Move == Move.Leave);
        leave.WhyNot.ShouldNotBeNull();
        await story.DoesAsync("lioth", new LeftSite(VisitEnd.Done)); // had left already
        (await story.ViewAsync())
            .Discrepancies.ShouldHaveSingleItem()
            .Sentence.ShouldStartWith("lioth left the site; when they came is not on record.");
    }
}
