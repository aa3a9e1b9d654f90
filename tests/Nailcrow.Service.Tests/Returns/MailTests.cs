using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Service.Tests.Situations;

namespace Nailcrow.Service.Tests.Returns;

/// <summary>What goes out by mail: papers that somebody sends, and reminders of what has to go back.</summary>
[Collection(Stories.Name)]
public sealed class MailTests(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static string Day(int fromToday) => $"{DateTime.UtcNow.Date.AddDays(fromToday):yyyy-MM-dd}";

    private async Task<(Story Story, string Old)> SwappedAsync()
    {
        var story = new Story(firm);
        var old = await story.SwappedAsync();
        story.Waits(TimeSpan.FromDays(3)); // from now on it is now
        return (story, old);
    }

    [Fact]
    public async Task A_paper_that_is_sent_is_the_one_there_is_and_the_ticket_keeps_what_it_was()
    {
        await using var post = await Outside.MailAsync(firm);
        var (story, _) = await SwappedAsync();
        (await story.ViewAsync()).Moves.ShouldContain(m => m.Move == Move.MailPaper && m.WhyNot == null);

        await story.DoesAsync("ilka", new PaperMailed(PaperKind.DeliveryNote, "archivist@corrin.example", Says: "As agreed today."));

        var stand = await Outside.ComesAsync(
            async () => (await story.ViewAsync()).Letters.FirstOrDefault() ?? "",
            l => l.Contains("was sent", StringComparison.Ordinal)
        );
        stand.ShouldStartWith("archivist@corrin.example was sent the delivery note on ");
        var (subject, text, papers) = (await post.MailsAsync("archivist@corrin.example")).ShouldHaveSingleItem();
        subject.ShouldStartWith($"T-{story.Ticket}: Delivery note, ");
        text.ShouldContain("As agreed today.");
        text.ShouldContain("sent by ilka");
        var (name, sha) = papers.ShouldHaveSingleItem();
        name.ShouldEndWith(".pdf");
        ((LetterWent)(await story.LastAsync<LetterWent>()).Body).Sha256.ShouldBe(sha);
        await story.StartsAnewAsync();
        (await story.ViewAsync()).Letters.ShouldBe([stand]);
        (await post.MailsAsync("archivist@corrin.example")).Count.ShouldBe(1);
    }

    [Theory]
    [InlineData("nobody at all", "is no address of a mailbox")]
    [InlineData("a@b", "is no address of a mailbox")]
    [InlineData("a@corrin.example, b@corrin.example", "is no address of a mailbox")]
    [InlineData("a@corrin.example\r\nBcc: c@corrin.example", "is no address of a mailbox")]
    [InlineData("\"A. Archivist\" <a@corrin.example>", "is no address of a mailbox")]
    public async Task What_is_no_one_address_is_refused_before_anything_is_written(string to, string because)
    {
        await using var post = await Outside.MailAsync(firm);
        var story = await new Story(firm).OnSiteAsync();

        (await story.RefusedAsync("ilka", new PaperMailed(PaperKind.ServiceReport, to))).Sentence.ShouldContain(because);

        (await story.ViewAsync()).Letters.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_paper_that_is_not_there_yet_and_one_for_nobody_to_carry_are_refused_with_what_to_do()
    {
        var story = await new Story(firm).OnSiteAsync();
        (await story.RefusedAsync("ilka", new PaperMailed(PaperKind.ServiceReport, "a@corrin.example"))).Sentence.ShouldContain(
            "No mail server is known"
        );
        await using var post = await Outside.MailAsync(firm);

        (await story.RefusedAsync("ilka", new PaperMailed(PaperKind.ReturnLabel, "a@corrin.example"))).Sentence.ShouldContain(
            "open a return first"
        );
        (await story.RefusedAsync("ilka", new PaperMailed(PaperKind.Destruction, "a@corrin.example"))).Sentence.ShouldContain(
            "There is no destruction"
        );
    }

    [Fact]
    public async Task Of_two_mail_servers_the_other_carries_what_the_first_does_not_take_today()
    {
        await using var first = await Outside.MailAsync(firm, "Aisle post");
        await using var other = await Outside.MailAsync(firm);
        await first.HandAsync("behave/down");
        var story = await new Story(firm).OnSiteAsync();

        await story.DoesAsync("ilka", new PaperMailed(PaperKind.ServiceReport, "desk@corrin.example"));

        await Outside.ComesAsync(
            async () => (await story.ViewAsync()).Letters.FirstOrDefault() ?? "",
            l => l.StartsWith("desk@corrin.example was sent the service report", StringComparison.Ordinal)
        );
        (await other.MailsAsync("desk@corrin.example")).Count.ShouldBe(1);
        (await first.MailsAsync("desk@corrin.example")).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("down", "We are down for the night")]
    [InlineData("hangs", "did not answer within 2 s.")]
    public async Task A_mail_server_that_is_no_good_today_is_asked_again_and_one_that_knows_nobody_of_that_name_is_believed(
        string manner,
        string says
    )
    {
        await using var post = await Outside.MailAsync(firm);
        var story = await new Story(firm).OnSiteAsync();
        await post.HandAsync($"behave/{manner}");
        await story.DoesAsync("ilka", new PaperMailed(PaperKind.ServiceReport, "desk@corrin.example"));
        (await Outside.ErrandAsync(story, e => e.Tries > 1)).Says.ShouldNotBeNull().ShouldContain(says);

        await post.HandAsync("behave/well");
        await story.DoesAsync("ilka", new PaperMailed(PaperKind.ServiceReport, "nobody@corrin.example"));

        var letters = (
            await Outside.ComesAsync(
                async () => (await story.ViewAsync()).Letters,
                l => l.Count == 2 && l.All(s => !s.Contains("not gone out", StringComparison.Ordinal))
            )
        );
        letters[0].ShouldStartWith("desk@corrin.example was sent the service report");
        letters[1].ShouldStartWith("nobody@corrin.example does not get the service report: ");
        (await post.MailsAsync("desk@corrin.example")).Count.ShouldBe(1);
    }

    [Fact]
    public async Task Who_holds_a_drive_is_reminded_before_it_is_due_once_and_with_what_lateness_costs()
    {
        await using var post = await Outside.MailAsync(firm);
        await (await firm.AsAsync("admin")).PutPersonMailAsync("ilka", "ilka@fenwright.example", Ct);
        try
        {
            var (story, old) = await SwappedAsync();
            var (later, other) = await SwappedAsync();
            await GoesBackTomorrowAsync(story, old);

            await Outside.ComesAsync(async () => (await story.ViewAsync()).Letters.Count, n => n == 1);
            var (subject, text, _) = (await Outside.ComesAsync(() => OfAsync(post, old), m => m.Count > 0)).ShouldHaveSingleItem();
            subject.ShouldContain($"{old} is due on {Day(1)}");
            text.ShouldContain($"{old} has to be with Pellworth by {Day(1)}");
            text.ShouldContain("Late, it costs 180.00 EUR.");
            text.ShouldContain("Hand it to a carrier");
            // What has gone is written down before the restart: a mail that went out unwritten would go again, as it must.
            await Outside.ComesAsync(
                async () => (await story.ViewAsync()).Letters,
                l => l is [var only] && only.StartsWith("ilka was sent", StringComparison.Ordinal)
            );
            // Looked for again each second, and after a restart; and not again once it is there.
            await story.StartsAnewAsync();
            await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight"));
            // A round that came to the next ticket has passed this one.
            await GoesBackTomorrowAsync(later, other);
            await Outside.ComesAsync(() => OfAsync(post, other), m => m.Count > 0);
            (await OfAsync(post, old)).Count.ShouldBe(1);
            (await story.ViewAsync()).Letters.ShouldHaveSingleItem().ShouldStartWith($"ilka was sent a reminder of {old}");
        }
        finally
        {
            // Not the client from before: it knows the service that was there before the restart.
            await (await firm.AsAsync("admin")).PutPersonMailAsync("ilka", null, Ct);
        }
    }

    [Fact]
    public async Task What_is_late_is_told_to_the_leads_too_and_nobody_without_an_address_is_written_to()
    {
        await using var post = await Outside.MailAsync(firm);
        var admin = await firm.AsAsync("admin");
        await admin.PutPersonMailAsync("lioth", "lioth@fenwright.example", Ct);
        try
        {
            var story = new Story(firm);
            var old = await story.SwappedAsync(); // two days ago
            var due = DateOnly.FromDateTime(DateTime.UtcNow.Date.AddDays(-1));
            await story.DoesAsync(
                "ilka",
                new ReturnOpened(old, ReturnReason.BackToStores, new(HolderKind.Depot, "Stores"), DueBy: due, DataAgreedBy: "R. Alder")
            );

            var mails = await Outside.ComesAsync(() => OfAsync(post, old, "lioth"), m => m.Count > 0);
            mails.ShouldHaveSingleItem().Subject.ShouldContain($"{old} is late");
            mails[0].Text.ShouldContain($"{old} should have been with Stores by {Day(-1)}, a day ago");
            (await OfAsync(post, old, "ilka")).ShouldBeEmpty();
            await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight"));
            await story.DoesAsync("sefa", new ReturnArrived(old, old));
            (await story.ViewAsync()).Letters.ShouldHaveSingleItem().ShouldStartWith($"lioth was sent a reminder of {old}");
        }
        finally
        {
            await admin.PutPersonMailAsync("lioth", null, Ct);
        }
    }

    private static Task GoesBackTomorrowAsync(Story story, string old) =>
        story.DoesAsync(
            "ilka",
            new ReturnOpened(
                old,
                ReturnReason.AdvanceExchange,
                new(HolderKind.Maker, "Pellworth"),
                "RX-77",
                DateOnly.FromDateTime(DateTime.UtcNow.Date.AddDays(1)),
                "R. Alder",
                "180.00 EUR"
            )
        );

    private static async Task<IReadOnlyList<(string Subject, string Text, IReadOnlyList<(string, string)>)>> OfAsync(
        Outside post,
        string serial,
        string whose = "ilka"
    ) => [.. (await post.MailsAsync($"{whose}@fenwright.example")).Where(m => m.Subject.Contains(serial, StringComparison.Ordinal))];
}
