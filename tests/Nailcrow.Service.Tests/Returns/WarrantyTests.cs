using System.Text;
using Nailcrow.Client;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Service.Tests.Situations;

namespace Nailcrow.Service.Tests.Returns;

/// <summary>What is known of warranties: a list of the firm's own, and what makers answered since; told where somebody decides by it.</summary>
[Collection(Stories.Name)]
public sealed class WarrantyTests(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<ImportResult> BringInAsync(string csv, bool dryRun = false) =>
        await (await firm.AsAsync("lioth")).ImportAsync(
            "warranties",
            new MemoryStream(Encoding.UTF8.GetBytes(csv)),
            dryRun,
            all: false,
            Ct
        );

    [Fact]
    public async Task A_list_is_brought_in_told_in_the_order_in_which_they_end_and_taken_out_as_it_came_in()
    {
        var done = await BringInAsync(
            """
            until,serial,model,from,terms
            2061-03-31,cdw 7000 0001,,2056-04-01,"exchange in advance, media may be kept"
            2059-12-31,,Cindral CDW7,,
            2059-12-31,CDW70000002,,,
            """
        );

        (done.Good, done.Bad, done.Imported).ShouldBe((3L, 0L, 3L));
        await firm.StartsAnewAsync();
        var page = await (await firm.AsAsync("ilka")).WarrantiesAsync("cdw7", null, null, Ct);
        page.Warranties.Select(w => w.Known.Serial ?? w.Known.Model).ShouldBe(["Cindral CDW7", "CDW70000002", "CDW70000001"]);
        page.Warranties[^1]
            .Says.ShouldStartWith("its warranty begins on 2056-04-01 (exchange in advance, media may be kept), by our list of ");
        (await (await firm.AsAsync("ilka")).WarrantiesAsync("cdw7", new(2060, 1, 1), null, Ct)).Warranties.ShouldHaveSingleItem();
        (await (await firm.AsAsync("ilka")).WarrantiesAsync("0002", null, null, Ct)).Warranties.ShouldContain(w =>
            w.Known.Serial == "CDW70000002"
        );
        using var http = await firm.HttpAsync("lioth");
        (await http.GetStringAsync("api/export/warranties", Ct)).ShouldContain(
            "2061-03-31,CDW70000001,,2056-04-01,\"exchange in advance, media may be kept\""
        );
    }

    [Theory]
    [InlineData("2061-03-31,,,,", "A warranty is one drive's or a model's; give its serial, or the model of all that have the same.")]
    [InlineData("2061-03-31,CDW70000003,Cindral W7,,", "A warranty is one drive's or a model's")]
    [InlineData("31.03.2061,CDW70000003,,,", "until has '31.03.2061'; write days as 2026-12-25.")]
    [InlineData("2061-03-31,CDW70000003,,2061-04-01,", "It would begin on 2061-04-01, after its end on 2061-03-31.")]
    [InlineData("2061-03-31,\"?\",,,", "'?'")]
    [InlineData(",CDW70000003,,,", "until")]
    public async Task A_row_that_says_no_warranty_is_told_and_changes_nothing(string row, string why)
    {
        var done = await BringInAsync($"until,serial,model,from,terms\n{row}\n");

        (done.Good, done.Bad).ShouldBe((0L, 1L));
        done.Problems.Single().Reason.ShouldContain(why);
        (await (await firm.AsAsync("ilka")).WarrantiesAsync("CDW70000003", null, null, Ct)).Warranties.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_long_list_is_read_page_by_page_and_each_is_there_once()
    {
        var rows = Enumerable.Range(1, 230).Select(n => $"{2070 + n % 3}-01-01,CDPAGED{n:0000},,,");
        (await BringInAsync($"until,serial,model,from,terms\n{string.Join('\n', rows)}\n")).Imported.ShouldBe(230);

        var ilka = await firm.AsAsync("ilka");
        var (read, after, pages) = (new List<string?>(), (string?)null, 0);
        do
        {
            var page = await ilka.WarrantiesAsync("CDPAGED", null, after, Ct);
            read.AddRange(page.Warranties.Select(w => w.Known.Serial));
            (after, pages) = (page.Next, pages + 1);
        } while (after is not null);

        pages.ShouldBe(3);
        read.Count.ShouldBe(230);
        read.ShouldBeUnique();
        using var http = await firm.HttpAsync("ilka");
        var nonsense = await http.GetAsync("api/warranties?after=yesterday", Ct);
        ((int)nonsense.StatusCode).ShouldBe(422);
        (await nonsense.Content.ReadAsStringAsync(Ct)).ShouldContain("what the page before said");
    }

    [Fact]
    public async Task It_is_told_where_a_drive_goes_back_and_what_its_maker_answers_counts_from_then_on()
    {
        await using var maker = await Outside.MakerAsync(firm, "Cindral Warranty Desk");
        var story = new Story(firm);
        var old = await story.SwappedAsync();
        story.Waits(TimeSpan.FromDays(3));
        await BringInAsync($"until,serial\n2020-05-01,{old}\n");
        var listed = (await story.ViewAsync()).Warranties.ShouldHaveSingleItem();
        listed.ShouldStartWith($"{old}: its warranty ended on 2020-05-01, by our list of ");
        (await HintAsync(story)).ShouldBe(listed);

        await maker.HandAsync($"warranty/{old}/2061-03-31");
        await story.DoesAsync("ilka", new MakerAsked(old, maker.Name, MakerQuestion.Warranty));
        var now = await Outside.ComesAsync(() => story.ViewAsync(), v => v.Warranties.Any(w => w.Contains("2061")));

        now.Warranties.Single()
            .ShouldStartWith(
                $"{old}: under warranty until 2061-03-31 (exchange in advance; media may be kept for a fee), as {maker.Name} answered on "
            );
        (await HintAsync(story)).ShouldBe(now.Warranties.Single());
        await story.StartsAnewAsync();
        (await (await story.AsAsync("ilka")).DriveAsync(old, Ct)).Warranty.ShouldNotBeNull().ShouldContain($"as {maker.Name} answered on ");
    }

    private static async Task<string?> HintAsync(Story story) =>
        (await story.ViewAsync())
            .Moves.Single(m => m.Body is ReturnOpened { To.Kind: HolderKind.Maker })
            .Fields.Single(f => f.Name == "to.name")
            .Hint;
}
