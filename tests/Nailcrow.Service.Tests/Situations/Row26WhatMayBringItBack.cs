using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Two are lost where one may be, and one was only dropped: never told safe, and a lead decides before anything leaves its bay.</summary>
[Collection(Stories.Name)]
public sealed class Row26WhatMayBringItBack(TheFirm firm)
{
    [Fact]
    public async Task The_drives_stay_where_they_are_until_a_lead_has_said_whether_they_are_kept()
    {
        var story = new Story(firm);
        story.Machine.Level = ArrayLevel.Raid5;
        story.Machine.Drops("5");
        await story.OnSiteAsync();

        var view = await story.ViewAsync();
        view.Danger.Verdicts.Where(v => v.Bay is "2" or "5").ShouldAllBe(v => v.Verdict == PullVerdict.NotKnown);
        (view.Next.Who, view.Next.Move).ShouldBe(("lead", Move.NoSwap));
        await story.StartAsync();
        await story.StartsAnewAsync();
        (await story.ViewAsync()).Run!.Sheet.ComesBack.ShouldBe(ComesBack.Cannot);

        await story.FollowAsync("rescue");
        (
            await story.RefusedAsync(
                "ilka",
                new Core.Swaps.Following.Answering.StepDecided((await story.ViewAsync()).Run!.Sheet.Id, "rescue", "yes")
            )
        ).Status.ShouldBe(409);
        await story.AnswersAsync("yes", "lioth");
        await story.CallsAsync(goAhead: true, "They stay; somebody comes for them.");
        await story.AnswersAsync("done");

        var part = story.Parts[0];
        await story.DoesAsync("ilka", new ReturnOpened(part, ReturnReason.BackToStores, new(HolderKind.Depot, "Stores")));
        await story.DoesAsync("ilka", new ReturnSent(part, "by hand"));
        await story.DoesAsync("sefa", new ReturnArrived(part, part));
        (await story.RefusedAsync("ilka", new TicketClosed(ClosedOtherwise.DataLost, "For now."))).Sentence.ShouldBe(
            "Closing as data-lost takes a lead."
        );
        await story.DoesAsync(
            "lioth",
            new TicketClosed(ClosedOtherwise.DataLost, "Two of six; the drives wait for whoever may read them.")
        );
        (await story.ViewAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
