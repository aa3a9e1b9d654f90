using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The new drive does not go in: its carrier is another, or it is too small. The bay waits empty, and another one is taken.</summary>
[Collection(Stories.Name)]
public sealed class Row12PartDoesNotFit(TheFirm firm)
{
    [Theory, InlineData("carrier", "does-not-fit"), InlineData("insert", "too-small")]
    public async Task What_does_not_go_in_is_given_up_at_that_step_and_the_next_part_is_scanned(string step, string why)
    {
        var story = await new Story(firm).AtAsync(step);
        var first = story.Parts[0];

        await story.AnswersAsync("not-so");
        await story.AnswersAsync(why);
        (await story.ViewAsync()).Run!.Unmet.ShouldBe(
            $"{first} was given up ({why.Replace('-', ' ')}); stores reserves and issues another."
        );
        await story.StartsAnewAsync();
        var other = await story.PartAsync();

        (await story.FollowAsync("serial-in")).Run!.Expected.ShouldBe(other);
        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.InSerial.ShouldBe(other);
        closed.Discrepancies.ShouldBeEmpty();
    }
}
