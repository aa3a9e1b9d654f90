using Nailcrow.Client;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Service.Tests.Situations;
using Nailcrow.Service.Tests.Swaps;

namespace Nailcrow.Service.Tests.Tickets;

/// <summary>The papers of a ticket and of stores: printed, read, and scanned back.</summary>
[Collection(Stories.Name)]
public sealed class DocumentTests(TheFirm firm)
{
    private static readonly Holder Maker = new(HolderKind.Maker, "Cindral");

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static async Task<PrintedPaper> PrintedAsync(Story story, PaperKind kind, string? about = null)
    {
        var ilka = await story.AsAsync("ilka");
        return await PrintedPaper.OfAsync(into => ilka.DocumentAsync(story.Ticket, kind, about, into, Ct));
    }

    private async Task<(Story Story, string Old)> SwappedAsync()
    {
        var story = new Story(firm);
        var old = await story.SwappedAsync();
        return (story, old);
    }

    private static Task GoesBackAsync(Story story, string serial, string? authorisation = "RA-77 0417") =>
        story.DoesAsync(
            "ilka",
            new ReturnOpened(serial, ReturnReason.ExchangeUnderWarranty, Maker, authorisation, new DateOnly(2061, 12, 24), "R. Alder")
        );

    [Fact]
    public async Task The_label_of_a_box_is_of_its_size_and_whoever_scans_it_has_both_numbers_and_the_ticket()
    {
        var (story, old) = await SwappedAsync();
        await GoesBackAsync(story, old);

        var label = await PrintedAsync(story, PaperKind.ReturnLabel, old);

        (label.Sheets, label.Width, label.Height).ShouldBe((1, 100, 150));
        label.Scanned.ShouldContain(old);
        label.Scanned.ShouldContain("RA-77 0417");
        label.Scanned.ShouldContain(code => code.EndsWith($"/tickets/{story.Ticket}"));
        label.Words.ShouldContain("maker Cindral");
        label.Words.ShouldContain("due 2061-12-24");
    }

    [Fact]
    public async Task Two_drives_for_one_maker_lie_in_one_box_with_one_list_and_what_has_arrived_is_on_none()
    {
        var story = await new Story(firm).OnSiteAsync();
        var (old, dead) = (story.Machine.Serial("2"), story.Parts[0]);
        await story.DoesAsync("ilka", new PartGivenUp(dead, NoReplacement.DeadOnArrival));
        await story.PartAsync();
        await story.StartAsync();
        await story.FollowAsync();
        await GoesBackAsync(story, old);
        await story.DoesAsync("ilka", new ReturnOpened(dead, ReturnReason.DeadOnArrival, Maker, "RA-78"));

        var list = await PrintedAsync(story, PaperKind.PackingList);

        list.Scanned.ShouldContain(old);
        list.Scanned.ShouldContain(dead);
        list.Words.ShouldContain("The customer's data is on it; R. Alder agreed that it leaves.");
        list.Words.ShouldContain("Dead on arrival, authorisation RA-78.");
        list.Words.ShouldContain("It held none of the customer's data.");

        await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight", "GF-1"));
        await story.DoesAsync("sefa", new ReturnArrived(old, old));
        var rest = await PrintedAsync(story, PaperKind.PackingList, $"{Maker}");
        rest.Scanned.ShouldNotContain(old);
        rest.Scanned.ShouldContain(dead);
    }

    [Fact]
    public async Task What_was_destroyed_has_a_certificate_that_says_how_and_before_whose_eyes()
    {
        var (story, old) = await SwappedAsync();
        await story.DoesAsync("ilka", new DriveDestroyed(old, "Drilled through twice", "R. Alder", "DC-0417"));
        await story.StartsAnewAsync();

        var paper = await PrintedAsync(story, PaperKind.Destruction, old);

        paper.Scanned.ShouldContain(old);
        paper.Scanned.ShouldContain("DC-0417");
        paper.Words.ShouldContain("Drilled through twice");
        paper.Words.ShouldContain("Came out of bay 2.");
        paper.Words.ShouldContain("Witness (R. Alder)");
    }

    [Fact]
    public async Task A_note_of_any_length_stays_on_the_paper_and_goes_on_over_its_pages()
    {
        var (story, old) = await SwappedAsync();
        var much = string.Join(" ", Enumerable.Range(1, 400).Select(n => $"word{n}"));
        await story.DoesAsync("ilka", new DriveKept(old, "R. Alder", $"{much} {new string('x', 400)} the-end"));

        var paper = await PrintedAsync(story, PaperKind.Retention, old);

        paper.Sheets.ShouldBeGreaterThan(1);
        foreach (var n in new[] { 1, 100, 250, 400 })
            paper.Words.ShouldContain($" word{n} ");
        paper.Words.Count(c => c == 'x').ShouldBeGreaterThanOrEqualTo(400); // one word wider than a line is on it to its last letter
        paper.Words.ShouldContain("the-end");
        paper.Words.ShouldContain("For the customer (R. Alder)");
    }

    [Fact]
    public async Task The_delivery_note_says_where_each_drive_is_before_the_engineer_leaves()
    {
        var (story, old) = await SwappedAsync();

        var note = await PrintedAsync(story, PaperKind.DeliveryNote);

        note.Words.ShouldContain("Fitted: it is in bay 2.");
        note.Words.ShouldContain("Came out; engineer ilka takes it along.");
        note.Scanned.ShouldContain(old);
        note.Scanned.ShouldContain(story.Parts[0]);
    }

    [Fact]
    public async Task Nobody_is_given_a_form_to_sign_for_a_drive_that_was_taken_back_since()
    {
        var (story, old) = await SwappedAsync();
        await story.DoesAsync("ilka", new DriveKept(old, "R. Alder"));
        var ilka = await story.AsAsync("ilka");
        (await ilka.DocumentsAsync(story.Ticket, Ct)).ShouldContain(p => p.Kind == PaperKind.Retention && p.About == old);

        await story.DoesAsync("sefa", new PartTakenBack(old, "Stores"));

        (await ilka.DocumentsAsync(story.Ticket, Ct)).ShouldNotContain(p => p.Kind == PaperKind.Retention);
        (await Should.ThrowAsync<ApiProblem>(() => PrintedAsync(story, PaperKind.Retention, old))).Message.ShouldContain("was not kept");
        (await PrintedAsync(story, PaperKind.DeliveryNote)).Words.ShouldContain("It is in depot Stores.");
    }

    [Fact]
    public async Task The_list_of_papers_says_what_can_be_had_and_what_cannot_and_keeps_its_word()
    {
        var (story, old) = await SwappedAsync();
        await GoesBackAsync(story, old, "RA-9");
        await story.DoesAsync("ilka", new DriveDestroyed(old, "Shredded", "R. Alder")); // and the return is off
        var ilka = await story.AsAsync("ilka");

        var papers = await ilka.DocumentsAsync(story.Ticket, Ct);

        papers.Select(p => p.Kind).Distinct().ShouldBe(Enum.GetValues<PaperKind>().Except([PaperKind.Retention]), ignoreOrder: true);
        papers
            .Where(p => p.NotYet is not null)
            .Select(p => p.Kind)
            .ShouldBe([PaperKind.ReturnLabel, PaperKind.PackingList, PaperKind.Proposal]);
        foreach (var paper in papers)
        {
            using var pdf = new MemoryStream();
            var asked = ilka.DocumentAsync(story.Ticket, paper.Kind, paper.About, pdf, Ct);
            if (paper.NotYet is null)
                await asked;
            else
                ((int)(await Should.ThrowAsync<ApiProblem>(asked)).Status).ShouldBe(409);
            (pdf.Length > 0).ShouldBe(paper.NotYet is null, paper.Title);
        }
    }

    [Theory]
    [InlineData("no-such-paper", "", 404, "'no-such-paper' is not a kind of paper")]
    [InlineData("return-label", "?about=NOBODYS", 409, "There is no return of NOBODYS")]
    [InlineData("destruction", "", 409, "was not destroyed")]
    [InlineData("packing-list", "?about=maker%20Nobody", 409, "open a return first")]
    public async Task A_paper_that_cannot_be_had_says_why(string kind, string query, int status, string says)
    {
        var (story, _) = await SwappedAsync();
        using var http = await firm.HttpAsync("ilka");

        using var answer = await http.GetAsync($"api/tickets/{story.Ticket}/documents/{kind}{query}", Ct);

        ((int)answer.StatusCode).ShouldBe(status);
        (await answer.Content.ReadAsStringAsync(Ct)).ShouldContain(says);
    }

    [Fact]
    public async Task Stores_prints_what_to_pick_shelf_by_shelf_and_labels_that_are_read_back()
    {
        var story = await new Story(firm).OnSiteAsync(parts: 0);
        var sefa = await story.AsAsync("sefa");
        var serials = Enumerable.Range(1, 30).Select(n => $"LBL{story.Ticket}N{n:00}X").ToList();
        foreach (var serial in serials)
            await sefa.ReceiveAsync(
                new(Guid.CreateVersion7(), serial, new(HolderKind.Depot, "Paper depot", "P7"), "Cindral C8", 8_000_000_000_000),
                Ct
            );
        await story.DoesAsync("sefa", new PartReserved(serials[4], "Cindral C8", 8_000_000_000_000, "Paper depot"));

        var picking = await PrintedPaper.OfAsync(into => sefa.PickingListAsync("Paper depot", into, Ct));
        var one = await PrintedPaper.OfAsync(into => sefa.LabelsAsync([serials[0]], into, Ct));
        var all = await PrintedPaper.OfAsync(into => sefa.LabelsAsync(new Holder(HolderKind.Depot, "Paper depot", "P7"), into, Ct));

        picking.Scanned.ShouldBe([serials[4]]);
        picking.Words.ShouldContain("depot Paper depot, shelf P7");
        picking.Words.ShouldContain($"For T-{story.Ticket}");
        (one.Sheets, one.Width, one.Height).ShouldBe((1, 70, 37));
        one.Scanned.ShouldBe([serials[0]]);
        all.Sheets.ShouldBe(2);
        all.Scanned.ShouldBe(serials, ignoreOrder: true);
        (await Should.ThrowAsync<ApiProblem>(() => sefa.LabelsAsync(["NOTHERE1"], Stream.Null, Ct))).Message.ShouldContain(
            "receive it first"
        );
    }
}
