using System.Security.Cryptography;
using System.Text;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Service.Tests.Situations;

namespace Nailcrow.Service.Tests.Swaps;

/// <summary>The customer signs on a screen: what they saw is what is kept, word for word, with their hand beneath it.</summary>
[Collection(Stories.Name)]
public sealed class SigningTests(TheFirm firm)
{
    // One dot, 1 by 1 pixel.
    private static readonly byte[] Hand = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+A8AAQUBAScY42YAAAAASUVORK5CYII="
    );

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<Story> DoneAsync()
    {
        var story = new Story(firm);
        await story.SwappedAsync();
        return story;
    }

    private static async Task<string> SignsAsync(Story story, Guid id, string? seen = null, byte[]? hand = null, string name = "R. Alder")
    {
        var ilka = await story.AsAsync("ilka");
        var text = await ilka.ToSignAsync(story.Ticket, Ct);
        await ilka.SignAsync(story.Ticket, id, name, "All there.", seen ?? text.Sha256, new MemoryStream(hand ?? Hand), Ct);
        return text.Text;
    }

    [Fact]
    public async Task What_was_shown_is_what_was_signed_and_both_can_be_had_later()
    {
        var (story, id) = (await DoneAsync(), Guid.CreateVersion7());

        var shown = await SignsAsync(story, id);
        await story.StartsAnewAsync();
        var ilka = await story.AsAsync("ilka");
        await ilka.WriteAsync(story.Ticket, new Nailcrow.Core.Tickets.NoteWritten("The porter has the key again."), Ct);

        var signed = (await story.ViewAsync()).Signed!;
        var kept = await ilka.SignedAsync(story.Ticket, signed.Photo, Ct);
        (signed.Photo, signed.Name, kept.Text).ShouldBe((id, "R. Alder", shown));
        kept.Sha256.ShouldBe(Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(kept.Text))));
        shown.ShouldContain(story.Asset);
        var number = kept.Sha256[..12];
        (await story.ReportSaysAsync()).ShouldContain(l => l.Contains($"kept with the signature, under {number}."));
        using var http = await firm.HttpAsync("ilka");
        (await http.GetByteArrayAsync($"api/tickets/{story.Ticket}/photos/{id}", Ct)).ShouldBe(Hand);
        var report = await PrintedPaper.OfAsync(into => ilka.DocumentAsync(story.Ticket, PaperKind.ServiceReport, null, into, Ct));
        report.Words.ShouldContain("For the customer");
    }

    [Fact]
    public async Task A_signature_that_is_kept_no_more_was_given_all_the_same_and_what_was_signed_can_still_be_read()
    {
        var (story, id) = (await DoneAsync(), Guid.CreateVersion7());
        var shown = await SignsAsync(story, id);

        await story.DoesAsync("lioth", new Nailcrow.Core.Swaps.Seen.PictureRemoved(id, "They asked for it."));
        await story.StartsAnewAsync();

        var (ilka, view) = (await story.AsAsync("ilka"), await story.ViewAsync());
        (view.SignedOffBy, view.Signed?.Removed?.Because).ShouldBe(("R. Alder", "They asked for it."));
        (await ilka.SignedAsync(story.Ticket, id, Ct)).Text.ShouldBe(shown);
        (await story.ReportSaysAsync()).ShouldContain(l => l.Contains("The picture of the signature is kept no more since 20"));
        (await PrintedPaper.OfAsync(into => ilka.DocumentAsync(story.Ticket, PaperKind.ServiceReport, null, into, Ct))).Words.ShouldContain(
            "is kept no more since"
        );
        (await (await story.AsAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task What_was_recorded_since_it_was_shown_is_read_first()
    {
        var (story, id) = (await DoneAsync(), Guid.CreateVersion7());
        var seen = (await (await story.AsAsync("ilka")).ToSignAsync(story.Ticket, Ct)).Sha256;
        await story.DoesAsync("ilka", new Nailcrow.Core.Tickets.AdviceGiven("Put a spare on the shelf"));

        var no = await Should.ThrowAsync<ApiProblem>(() => SignsAsync(story, id, seen));

        no.Message.ShouldStartWith("Something was recorded since this was shown");
        (await story.ViewAsync()).Signed.ShouldBeNull();
        await SignsAsync(story, id);
        (await story.ViewAsync()).SignedOffBy.ShouldBe("R. Alder");
    }

    [Fact]
    public async Task Sent_twice_it_is_one_and_nothing_but_a_picture_is_a_signature()
    {
        var (story, id) = (await DoneAsync(), Guid.CreateVersion7());
        (await Should.ThrowAsync<ApiProblem>(() => SignsAsync(story, id, hand: "a name"u8.ToArray()))).Message.ShouldContain(
            "accepted: JPEG and PNG"
        );
        (await Should.ThrowAsync<ApiProblem>(() => SignsAsync(story, id, name: " "))).Message.ShouldContain("the name of who signs");
        await SignsAsync(story, id);
        await SignsAsync(story, id, seen: "what was seen the first time");

        (await story.ToldAsync()).Count(t => t.StartsWith("Signed on the screen by R. Alder")).ShouldBe(1);
        var made = new Signature(Guid.CreateVersion7(), "00", "image/png", 1, "Anything at all", "00");
        (await story.RefusedAsync("lioth", new CustomerSignedOff("R. Alder", null, made))).Status.ShouldBe(403);
        var entry = await story.LastAsync<CustomerSignedOff>();
        (
            await story.RefusedAsync("lioth", new EntryCorrected(entry.Id, "Another name", new CustomerSignedOff("O. Vey")))
        ).Sentence.ShouldContain("have it signed again");
        await story.DoesAsync("lioth", new EntryCorrected(entry.Id, "It was the neighbour who signed"));
        (await story.ViewAsync()).SignedOffBy.ShouldBeNull();
    }

    [Fact]
    public async Task A_signature_that_somebody_put_another_in_place_of_is_found()
    {
        AboutTheFile.Only();
        var (story, id) = (await DoneAsync(), Guid.CreateVersion7());
        await SignsAsync(story, id);
        var admin = await story.AsAsync("admin");
        (await admin.VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
        var copy = Path.Combine(Directory.CreateTempSubdirectory("nailcrow-signed-").FullName, "nailcrow.db");
        await using (var from = new SqliteConnection($"Data Source={Path.Combine(firm.Folder, "nailcrow.db")};Mode=ReadOnly"))
        await using (var to = new SqliteConnection($"Data Source={copy}"))
        {
            await from.OpenAsync(Ct);
            await to.OpenAsync(Ct);
            from.BackupDatabase(to);
            await using var forged = to.CreateCommand();
            forged.CommandText =
                "SELECT group_concat('DROP TRIGGER ' || name, ';') FROM sqlite_master WHERE type = 'trigger' AND tbl_name = 'photo'";
            forged.CommandText = $"{await forged.ExecuteScalarAsync(Ct)}; UPDATE photo SET content = x'89504E470D0A1A0A00' WHERE id = @id";
            forged.Parameters.AddWithValue("@id", id.ToString().ToUpperInvariant());
            (await forged.ExecuteNonQueryAsync(Ct)).ShouldBe(1);
        }

        await using var other = await Running.RunningService.StartAsync(Path.GetDirectoryName(copy));
        var found = (await (await other.SignInAsync("admin")).VerifyAsync(Ct)).Troubles;

        found.ShouldContain(t =>
            t.Sentence.Contains($"Picture {id} of T-{story.Ticket}") && t.Sentence.Contains("is not the one that was taken")
        );
    }
}
