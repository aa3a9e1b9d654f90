using System.Text;
using System.Text.RegularExpressions;
using Nailcrow.Service.Tests.Situations;

namespace Nailcrow.Service.Tests.Swaps;

/// <summary>The run sheet on paper, for a cellar without a signal.</summary>
[Collection(Stories.Name)]
public sealed class PaperTests(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_plain_swap_has_three_pages_and_what_is_done_on_a_good_day_comes_first_in_its_order()
    {
        var story = await new Story(firm).OnSiteAsync();
        await story.StartAsync();
        var ilka = await story.AsAsync("ilka");
        var sheet = (await ilka.TicketAsync(story.Ticket, Ct)).Run!.Sheet; // it was started above
        using var pdf = new MemoryStream();
        await ilka.PaperAsync(story.Ticket, pdf, Ct);
        var places = await ilka.PaperOrderAsync(story.Ticket, Ct);

        Regex.Count(Encoding.Latin1.GetString(pdf.ToArray()), @"/Type\s*/Page\b(?!s)").ShouldBeLessThanOrEqualTo(3);
        places.Select(p => p.Number).ShouldBe(Enumerable.Range(1, sheet.Steps.Count));
        var plain = places.TakeWhile(p => p.IsPlain).Select(p => p.Step).ToList();
        plain.ShouldBe(sheet.Steps.Select(s => s.Id).Where(plain.Contains)); // nothing leads back on a good day
        (plain[0], plain[^1]).ShouldBe(("part", "after"));
        places.Skip(plain.Count).ShouldAllBe(p => !p.IsPlain);
        places.Skip(plain.Count).Select(p => p.Step).ShouldContain("put-back");
    }
}
