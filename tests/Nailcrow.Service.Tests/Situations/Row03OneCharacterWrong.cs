using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>One character of a serial is read wrong, or swapped: it is read again, and no drive is accused.</summary>
[Collection(Stories.Name)]
public sealed class Row03OneCharacterWrong(TheFirm firm)
{
    [Fact]
    public async Task A_slip_is_read_again_and_leaves_no_trace_of_a_wrong_drive()
    {
        var story = await new Story(firm).AtAsync("serial-out");
        var right = story.Machine.Serial("2") is { Length: > 0 } there ? there : (await story.ViewAsync()).Run!.Expected!;
        var slip = right[..^1] + (right[^1] == 'X' ? 'K' : 'X');

        await story.AnswersAsync(slip);
        await story.StartsAnewAsync();
        var view = await story.ViewAsync();
        view.Run!.Current!.Id.ShouldBe("serial-out");
        view.Run.LastScan!.Differs.ShouldBe([right.Length - 1]);
        view.Swap.WrongOut.ShouldBeNull();

        await story.AnswersAsync($" s/n: {right[..4].ToLowerInvariant()}-{right[4..]} "); // a prefix, dashes and small letters do not count
        (await story.StepAsync()).ShouldBe("mark-bad");
        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Swap.NearMisses.ShouldBeEmpty();
    }
}
