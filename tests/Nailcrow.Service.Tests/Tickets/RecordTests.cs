using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Waiting;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Tickets;

/// <summary>What may come into the record, what stays in it, and what is told of it, through the interface.</summary>
public sealed class RecordTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static readonly byte[] Png = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
    );

    private Task<HttpClient> HttpAsync(string name) => service.Service.HttpAsync(name);

    private static StringContent Json(string text) => new(text, Encoding.UTF8, "application/json");

    private static async Task<(int Status, string? Detail)> SentenceAsync(HttpResponseMessage answer) =>
        (
            (int)answer.StatusCode,
            JsonSerializer.Deserialize(await answer.Content.ReadAsStringAsync(Ct), ContractJson.Default.Problem)?.Detail
        );

    [Fact]
    public async Task A_made_up_sheet_is_followed_by_nobody()
    {
        var ticket = await service.OpenAsync();
        var made = new RunSheet(
            Guid.NewGuid(),
            "p",
            "Pull them all",
            "1",
            "vault",
            "2",
            "S",
            "C",
            [new("a", StepKind.Do, "C", "Pull.", [new("done", "Done")])]
        );

        (await service.RefusedAsync("lioth", ticket, new SheetCompiled(made))).ShouldBe(
            (
                403,
                "A run sheet is made by the service, from a procedure that is published and proved: POST /api/tickets/{number}/sheet, or 'nailcrow run start'."
            )
        );
        (await service.RefusedAsync("admin", ticket, new SerialKnownElsewhere("X", "nowhere"))).Status.ShouldBe(403);
        (await service.RefusedAsync("ilka", ticket, new PhotoTaken(Guid.NewGuid(), "00", "image/png", 1))).Status.ShouldBe(403);
        (await (await service.AsAsync("ilka")).TicketAsync(ticket, Ct)).Run.ShouldBeNull();
    }

    [Theory]
    [InlineData(
        """{"body":{"kind":"note-written","txt":"a"}}""",
        400,
        "The body cannot be read at $.body.txt: there is no field 'txt'; accepted: text."
    )]
    [InlineData(
        """{"body":{"kind":"note-written","text":"a"},"when":"now"}""",
        400,
        "The body cannot be read at $.when: there is no field 'when'; accepted: body, id, at, sentAt, clockBehindMs."
    )]
    [InlineData(
        """{"body":{"kind":"note-written","text":"a\u0000b"}}""",
        422,
        "text has a character U+0000 in it, which no text has; send it without."
    )]
    [InlineData(
        """{"body":{"kind":"note-written","text":"a"},"at":"1970-01-01T00:00:00Z"}""",
        422,
        "It says it happened at 1970-01-01 00:00 UTC; nothing here is older than 2000. Set the device's clock."
    )]
    [InlineData(
        """{"body":{"kind":"evidence-seen","evidence":"lamp","source":"person","text":"a","count":-3}}""",
        422,
        "count is -3; 0 to 1,000,000,000 are taken."
    )]
    public async Task What_may_not_come_in_is_told_with_what_may(string body, int status, string sentence)
    {
        var ticket = await service.OpenAsync();
        using var http = await HttpAsync("ilka");

        using var answer = await http.PostAsync($"api/tickets/{ticket}/entries", Json(body), Ct);

        (await SentenceAsync(answer)).ShouldBe((status, sentence));
    }

    [Fact]
    public async Task A_clock_of_the_year_9999_holds_no_ticket_up()
    {
        var ticket = await service.OpenAsync();
        var ilka = await service.AsAsync("ilka");

        (
            await Should.ThrowAsync<ApiProblem>(() =>
                ilka.WriteAsync(ticket, new EntryAsk(new PutOnHold("Snow"), Guid.NewGuid(), DateTimeOffset.MaxValue), Ct)
            )
        ).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await ilka.WriteAsync(ticket, new EntryAsk(new ArrivedOnSite(), Guid.NewGuid(), DateTimeOffset.MaxValue), Ct);

        var view = await ilka.TicketAsync(ticket, Ct);
        (view.HoldReason, view.ArrivedAt < DateTimeOffset.UtcNow.AddMinutes(1)).ShouldBe((null, true));
        view.Discrepancies.Select(d => d.About).ShouldBe(["clock"]);
    }

    [Fact]
    public async Task What_the_service_does_on_request_it_does_once_for_one_press()
    {
        var ticket = await service.OpenAsync("FSC-0107");
        using var http = await HttpAsync("ilka");
        foreach (var (path, body) in new[] { ("snapshots", ""), ("light", """{"on":true}"""), ("light", """{"on":false}""") })
        {
            var id = Guid.CreateVersion7();
            var twice = new List<Receipt>();
            for (var i = 0; i < 2; i++)
            {
                using var answer = await http.PostAsync($"api/tickets/{ticket}/{path}?id={id}", body.Length == 0 ? null : Json(body), Ct);
                twice.Add(JsonSerializer.Deserialize(await answer.Content.ReadAsStringAsync(Ct), ContractJson.Default.Receipt)!);
            }
            twice.Select(r => (r.Id, r.Seq, r.Repeated)).ShouldBe([(id, twice[0].Seq, false), (id, twice[0].Seq, true)], path);
        }
        await service.WriteAsync(
            "sefa",
            ticket,
            new Core.Returns.Issuing.PartReserved(
                "C8FORPRESS1",
                "Cindral C8",
                8_001_563_222_016,
                "Fenwright main stores",
                OverruledBecause: "Nothing else is there"
            )
        );
        await service.WriteAsync("sefa", ticket, new Core.Returns.Issuing.PartIssued("C8FORPRESS1", "ilka"));
    }

    [Fact]
    public async Task A_picture_is_kept_with_its_entry_or_not_at_all_and_nobody_replaces_one()
    {
        var ticket = await service.OpenAsync();
        var (mine, id) = (await HttpAsync("ilka"), Guid.CreateVersion7());
        async Task<HttpResponseMessage> PutAsync(HttpClient who, byte[] bytes)
        {
            using var content = new ByteArrayContent(bytes) { Headers = { ContentType = new("image/png") } };
            return await who.PutAsync($"api/tickets/{ticket}/photos/{id}", content, Ct);
        }

        (await SentenceAsync(await PutAsync(await HttpAsync("admin"), Png))).Status.ShouldBe(403);
        (await mine.GetAsync($"api/tickets/{ticket}/photos/{id}", Ct)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await PutAsync(mine, Png)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await PutAsync(mine, Png)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await SentenceAsync(await PutAsync(mine, [.. Png, 1]))).Detail.ShouldNotBeNull().ShouldContain("is in use for another entry");

        (await mine.GetByteArrayAsync($"api/tickets/{ticket}/photos/{id}", Ct)).ShouldBe(Png);
    }

    [Fact]
    public async Task An_unchanged_ticket_is_not_sent_again_and_a_changed_one_is()
    {
        var ticket = await service.OpenAsync();
        using var http = await HttpAsync("ilka");
        async Task<(HttpStatusCode, string?)> AskAsync(string? tag)
        {
            using var ask = new HttpRequestMessage(HttpMethod.Get, $"api/tickets/{ticket}");
            if (tag is not null)
                ask.Headers.TryAddWithoutValidation("If-None-Match", tag);
            using var answer = await http.SendAsync(ask, Ct);
            return (answer.StatusCode, answer.Headers.ETag?.Tag);
        }

        var (_, first) = await AskAsync(null);
        (await AskAsync(first)).ShouldBe((HttpStatusCode.NotModified, first));
        // A site's access notes stand in the answer, and change without an entry.
        var admin = await service.AsAsync("admin");
        var demo = JsonSerializer.Deserialize(
            await File.ReadAllTextAsync(Path.Combine(Built.Root, "demo", "reference.json"), Ct),
            ContractJson.Default.ReferenceData
        )!;
        await admin.LoadAsync(new([], [.. demo.Sites.Select(s => s with { Access = $"{s.Access} Ring twice." })], []), Ct);
        var (status, second) = await AskAsync(first);

        (status, second == first).ShouldBe((HttpStatusCode.OK, false));
    }

    [Fact]
    public async Task A_ticket_of_thousands_of_readings_is_a_short_answer_and_all_of_them_are_had_in_pages()
    {
        const int Count = 2_000;
        var ticket = await service.OpenAsync();
        var ilka = await service.AsAsync("ilka");
        await service.WriteAsync("ilka", ticket, new DriveInserted("3", "C8LONG0001"));
        for (var i = 0; i < Count; i++) // in their order, as one machine says them
            await service.WriteAsync(
                "ilka",
                ticket,
                new ReadingTaken("catalogue", Progress.Running, RebuildPhase.Rebuilding, "person", i * 100m / Count)
            );
        using var http = await HttpAsync("ilka");

        (await http.GetByteArrayAsync($"api/tickets/{ticket}", Ct)).Length.ShouldBeLessThan(300_000);
        (await ilka.TicketAsync(ticket, Ct)).Rebuild.ShouldSatisfyAllConditions(
            r => r.Readings.Count.ShouldBeLessThanOrEqualTo(300),
            r => r.Count.ShouldBeGreaterThan(300)
        );
        var (read, after) = (0, (int?)0);
        while (after is { } at)
        {
            var page = await ilka.ReadingsAsync(ticket, at, Ct);
            (read, after) = (read + page.Readings.Count, page.Next);
        }
        read.ShouldBe(Count);
    }

    [Fact]
    public async Task What_arrives_on_a_closed_ticket_is_among_what_waits_until_a_lead_has_said_what_it_means()
    {
        var ticket = await service.OpenAsync();
        var before = DateTimeOffset.UtcNow;
        await service.WriteAsync("lioth", ticket, new TicketCancelled("The lamp was a reflection"));
        var ilka = await service.AsAsync("ilka");
        async Task<bool> WaitsAsync() =>
            (await ilka.TicketsAsync(new TicketSearch(Ended: false, Limit: 200), Ct)).Tickets.Any(t => t.Number == ticket);
        (await WaitsAsync()).ShouldBeFalse();

        var receipt = await ilka.WriteAsync(ticket, new DrivePulled("3", "T4LATE00001"), Ct, before);

        receipt.Raised.Select(d => d.About).ShouldBe(["late"]);
        (await WaitsAsync()).ShouldBeTrue();
        (await service.RefusedAsync("ilka", ticket, new TicketReopened("Mine"))).Status.ShouldBe(403);
        await service.WriteAsync("lioth", ticket, new DiscrepancySettled(receipt.Raised[0].Id, "Of the machine beside it"));
        (await WaitsAsync()).ShouldBeFalse();
        (await service.WriteAsync("lioth", ticket, new TicketReopened("It is out after all"))).Stage.ShouldNotBe(Stage.Cancelled);
        (await WaitsAsync()).ShouldBeTrue();
    }

    [Fact]
    public async Task An_entry_that_this_version_cannot_read_takes_nothing_with_it_and_a_lead_settles_it()
    {
        AboutTheFile.Only();
        await using var old = await RunningService.StartPeopledAsync();
        var ticket = (await (await old.SignInAsync("ilka")).ReportAsync(new("FSC-0203", "Beeper", Bay: "8"), Ct)).Ticket;
        await old.StopAsync();
        OfALaterVersion(old.DatabaseFile, ticket);

        await using var now = await old.StartsAnewAsync();
        var (ilka, lioth, admin) = (await now.SignInAsync("ilka"), await now.SignInAsync("lioth"), await now.SignInAsync("admin"));

        var open = (await ilka.TicketAsync(ticket, Ct)).Discrepancies.Single();
        (open.About, open.Sentence).ShouldBe(
            (
                "unreadable",
                "An entry of the kind 'sun-dried' by tamsel cannot be read by this version, and counts for nothing: this version does not know the kind."
            )
        );
        var page = await ilka.JournalAsync(ticket, 0, Ct);
        page.Unread.ShouldBe([new(2, "this version does not know the kind.")]);
        page.Entries[1].BodyAsWritten().GetProperty("how").GetString().ShouldBe("on a wall");
        HashChain.FirstBroken(page.Entries).ShouldBeNull(); // whoever reads the interface can verify it, whatever they can read
        (await ilka.TicketsAsync(new TicketSearch(), Ct)).Tickets.Count.ShouldBe(1);
        (await admin.VerifyAsync(Ct))
            .Troubles.Select(t => (t.Kind, t.Seq))
            .ShouldBe([(Core.Tickets.Journal.Verifying.TroubleKind.CannotBeRead, 2)]);
        (await admin.RebuildProjectionsAsync(Ct)).Tickets.ShouldBe(1);
        await ilka.WriteAsync(ticket, new NoteWritten("Goes on"), Ct);
        (await ilka.ReportOfAsync(ticket, Ct)).Parts.ShouldNotBeEmpty();
        (await Should.ThrowAsync<ApiProblem>(() => ilka.WriteAsync(ticket, new TicketClosed(), Ct))).Message.ShouldContain("sun-dried");
        await lioth.WriteAsync(
            ticket,
            new DiscrepancySettled(open.Id, "Written by the newer service in the other depot; it says the drive was dried"),
            Ct
        );
        (await ilka.TicketAsync(ticket, Ct)).Discrepancies.ShouldAllBe(d => d.SettledBy == "lioth");
    }

    /// <summary>As another node of a later release would have written it: of a kind of its own, in the chain.</summary>
    private static void OfALaterVersion(string database, long ticket)
    {
        using var connection = new SqliteConnection($"Data Source={database}");
        connection.Open();
        string One(string sql)
        {
            using var ask = connection.CreateCommand();
            ask.CommandText = sql;
            return Convert.ToString(ask.ExecuteScalar(), System.Globalization.CultureInfo.InvariantCulture) ?? "";
        }
        var id = Guid.CreateVersion7();
        var first = JsonDocument.Parse(One($"SELECT text FROM journal WHERE ticket = {ticket}")).RootElement;
        var (at, recorded) = (first.GetProperty("at").GetString(), first.GetProperty("recordedAt").GetString());
        var text =
            $$"""{"at":"{{at}}","body":{"how":"on a """
            + $$"""wall","kind":"sun-dried"},"by":"tamsel","clockOffsetMs":0,"hash":"","id":"{{id}}","""
            + "\""
            + $$"""recordedAt":"{{recorded}}","seq":2,"ticket":{{ticket}}}""";
        var hash = HashChain.Next(One($"SELECT hash FROM journal WHERE ticket = {ticket}"), text);
        One(
            "INSERT INTO journal (ticket, seq, id, at, recorded_at, \"by\", kind, text, hash) SELECT ticket, 2, "
                + $"'{id.ToString().ToUpperInvariant()}', at, recorded_at, 'tamsel', 'sun-dried', '{text}', '{hash}' "
                + $"FROM journal WHERE ticket = {ticket}"
        );
        One($"UPDATE ticket_line SET rules = 0 WHERE number = {ticket}"); // told by the other node's rules
    }
}
