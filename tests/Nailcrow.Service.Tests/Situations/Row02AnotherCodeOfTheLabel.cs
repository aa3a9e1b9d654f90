using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A part number, a worldwide name, a sticker of the site was scanned: asked again, and never a wrong drive by itself.</summary>
[Collection(Stories.Name)]
public sealed class Row02AnotherCodeOfTheLabel(TheFirm firm)
{
    [Theory, InlineData("5000C500A1B2C3D4"), InlineData("P/N 1XX232-002"), InlineData("INVENTORY 00417"), InlineData("Made in year 2021")]
    public async Task It_is_asked_again_with_what_to_look_for_and_nobody_nearly_lost_data(string code)
    {
        var story = await new Story(firm).AtAsync("serial-out");

        await story.AnswersAsync(code);
        await story.StartsAnewAsync();

        var view = await story.ViewAsync();
        (view.Run!.Current!.Id, view.Swap.WrongOut).ShouldBe(("serial-out", null));
        view.Run.Visits[^1].Said!.ShouldContain("S/N");
        var closed = await story.ClosesAsync();
        (closed.Stage, closed.Swap.NearMisses.Count).ShouldBe((Stage.Closed, 0));
    }
}
