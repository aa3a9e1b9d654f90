using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The chassis is another one than in the ticket, or has moved to another rack: nothing is touched.</summary>
[Collection(Stories.Name)]
public sealed class Row07AnotherChassis(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task It_is_the_wrong_machine_and_the_right_one_is_found()
    {
        var story = await new Story(firm).AtAsync("chassis-serial");
        await story.AnswersAsync("CH-S999"); // one that nobody knows may be misread
        await story.AnswersAsync("CH-S999");
        (await story.StepAsync()).ShouldBe("chassis-lost");
        (await story.ViewAsync()).HasMoved().ShouldBeFalse();

        await story.CallsAsync(goAhead: true, "It is in the rack behind you.");
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Run!.Heard!.Answer.ShouldBe("It is in the rack behind you.");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task The_record_was_wrong_and_is_put_right_and_the_sheet_looks_for_the_machine_that_is_there()
    {
        var story = await new Story(firm).AtAsync("chassis-serial");
        await story.AnswersAsync("CH-NEW7");
        await story.AnswersAsync("CH-NEW7");
        var known = await (await story.AsAsync("lioth")).ApplianceAsync(story.Asset, Ct);
        await (await story.AsAsync("lioth")).ReplaceMachineAsync(
            known.Appliance with
            {
                Serial = "CH-NEW7",
                Location = "Hall, rack 4",
            },
            known.Version,
            Ct
        );
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Run!.Outdated.ShouldStartWith("This sheet looks for a machine with the serial CH-S");
        await story.StartAsync();
        story.Forgets();
        var now = await story.ViewAsync();
        now.Run!.Sheet.ChassisSerial.ShouldBe("CH-NEW7");
        now.Run.Visits.ShouldContain(v => v.Step == "strap"); // carried over
        now.Run.Outdated.ShouldBeNull();
        await story.CallsAsync(goAhead: true, "The record is right now.");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task It_only_stands_elsewhere_by_now_and_the_sheet_says_where()
    {
        var story = await new Story(firm).AtAsync("strap");
        var lioth = await story.AsAsync("lioth");
        var known = await lioth.ApplianceAsync(story.Asset, Ct);
        await lioth.ReplaceMachineAsync(known.Appliance with { Location = "Hall, rack 9" }, known.Version, Ct);
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Location.ShouldBe("Hall, rack 9");
        (await story.ViewAsync()).Run!.Outdated.ShouldNotBeNull();
        await story.StartAsync();
        story.Forgets();
        (await story.ViewAsync()).Run!.Sheet.Step("light-on")!.See.ShouldBe("One chassis at Hall, rack 9 blinks.");
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}

internal static class Untouched
{
    public static bool HasMoved(this Core.Tickets.Telling.TicketView view) => view.Swap.PulledAt is not null;
}
