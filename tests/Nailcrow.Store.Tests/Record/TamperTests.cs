using Nailcrow.Core.People.Log;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Store.People;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;

namespace Nailcrow.Store.Tests.Record;

/// <summary>
/// What somebody can do who has the file and knows how we work; each is found, by itself or against a seal, and told as what it is.
/// </summary>
public sealed class TamperTests : IAsyncLifetime
{
    private const string NoGuards =
        "DROP TRIGGER journal_keeps_every_entry; DROP TRIGGER journal_keeps_what_was_written; DROP TRIGGER "
        + "photo_keeps_every_picture; DROP TRIGGER photo_keeps_what_was_taken; ";

    private static readonly byte[] Png = [0x89, 0x50, 0x4E, 0x47, 1, 2, 3];

    private readonly StoreInUse _store = new();
    private string _seal = "";

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    /// <summary>Three tickets of three entries each, a picture on the first, and a seal over all.</summary>
    public async ValueTask InitializeAsync()
    {
        await _store.InitializeAsync();
        foreach (var asset in new[] { "FSC-1", "FSC-2", "FSC-3" })
        {
            var ticket = await _store.OpenAsync(StoreInUse.Fault(asset: asset));
            await _store.WriteAsync(ticket, new EngineerAssigned("ilka"));
            if (ticket == 1001)
                await _store.TakePictureAsync(ticket, Png);
            else
                await _store.WriteAsync(ticket, new NoteWritten($"Of {asset}"));
        }
        _seal = (await _store.Get<Seals>().SealAsync(Ct)).Text;
    }

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    public static TheoryData<string, string, TroubleKind, string> ByItself =>
        new()
        {
            {
                "a word of a text",
                "UPDATE journal SET text = replace(text, 'engineer\":\"ilka', 'engineer\":\"imka') WHERE ticket = 1002 AND seq = 2",
                TroubleKind.Changed,
                "T-1002 entry 2 (ID) is not what was written."
            },
            {
                "a text, whole",
                "UPDATE journal SET text = '{' WHERE ticket = 1002 AND seq = 3",
                TroubleKind.Changed,
                "T-1002 entry 3 (ID) is not what was written."
            },
            {
                "a hash",
                "UPDATE journal SET hash = replace(hash, substr(hash, 1, 1), 'x') WHERE ticket = 1002 AND seq = 3",
                TroubleKind.Changed,
                "T-1002 entry 3 (ID) is not what was written."
            },
            {
                "the kind column",
                "UPDATE journal SET kind = 'note-written' WHERE ticket = 1002 AND seq = 2",
                TroubleKind.Changed,
                "T-1002 entry 2 (ID) is listed as 'note-written' and says 'engineer-assigned'."
            },
            {
                "who it is by",
                "UPDATE journal SET \"by\" = 'somebody' WHERE ticket = 1002 AND seq = 2",
                TroubleKind.Changed,
                "T-1002 entry 2 (ID) is listed as by 'somebody' and says 'ilka'."
            },
            {
                "when it happened",
                "UPDATE journal SET at = at + 2048000000 WHERE ticket = 1002 AND seq = 2",
                TroubleKind.Changed,
                "T-1002 entry 2 (ID) is listed at another time than it says."
            },
            {
                "when it was recorded",
                "UPDATE journal SET recorded_at = recorded_at + 2048000000 WHERE ticket = 1002 AND seq = 2",
                TroubleKind.Changed,
                "T-1002 entry 2 (ID) is listed as recorded at another time than it says."
            },
            {
                "its id",
                "UPDATE journal SET id = '01A211BC-7512-7EB7-8BAE-F5088D976B81' WHERE ticket = 1002 AND seq = 2",
                TroubleKind.Changed,
                "T-1002 entry 2 (ID) says of itself that it is T-1002 entry 2 (ID)."
            },
            {
                "which ticket it is on",
                "UPDATE journal SET ticket = 1003, seq = 4 WHERE ticket = 1002 AND seq = 3",
                TroubleKind.Changed,
                "T-1003 entry 4 (ID) says of itself that it is T-1002 entry 3 (ID)."
            },
            {
                "two entries' places",
                "UPDATE journal SET seq = 9 WHERE ticket = 1002 AND seq = 2; UPDATE journal SET seq = 2 WHERE ticket "
                    + "= 1002 AND seq = 3; UPDATE journal SET seq = 3 WHERE ticket = 1002 AND seq = 9",
                TroubleKind.Changed,
                "T-1002 entry 2 (ID) stands after number 3 of its ticket."
            },
            {
                "an entry out of the middle",
                "DELETE FROM journal WHERE ticket = 1002 AND seq = 2",
                TroubleKind.Missing,
                "T-1002: entry 2 is missing."
            },
            {
                "an entry off the end",
                "DELETE FROM journal WHERE ticket = 1002 AND seq = 3",
                TroubleKind.Missing,
                "T-1002 ends at entry 2; 3 were written."
            },
            {
                "an entry off the end, and the line",
                "DELETE FROM journal WHERE ticket = 1002 AND seq = 3; UPDATE ticket_line SET head = 2, head_hash = "
                    + "(SELECT hash FROM journal WHERE ticket = 1002 AND seq = 2) WHERE number = 1002",
                TroubleKind.Missing,
                "1 entry that was written is not there any more; no number tells on which ticket."
            },
            {
                "a ticket's entries",
                "DELETE FROM journal WHERE ticket = 1002",
                TroubleKind.Missing,
                "T-1002 has no entries left; 3 were written."
            },
            {
                "a ticket, whole",
                "DELETE FROM journal WHERE ticket = 1002; DELETE FROM ticket_line WHERE number = 1002",
                TroubleKind.Missing,
                "T-1002 is gone whole: neither entries nor lists tell of it, and the numbers before and after do."
            },
            {
                "a picture's bytes",
                "UPDATE photo SET content = X'89504E470D0A'",
                TroubleKind.Changed,
                "Picture ID of T-1001 entry 3 is not the one that was taken."
            },
            { "a picture", "DELETE FROM photo", TroubleKind.Missing, "Picture ID of T-1001 entry 3 is not there any more." },
            {
                "a picture that nobody took",
                "INSERT INTO photo VALUES ('01A211BC-7512-7EB7-8BAE-F5088D976B81', 1002, 'image/png', X'00')",
                TroubleKind.Unexplained,
                "Picture ID of T-1002 is there, and no entry tells of it."
            },
            {
                "what the list says",
                "UPDATE ticket_line SET stage = 'Closed' WHERE number = 1003",
                TroubleKind.ListsDiffer,
                "T-1003: the journal says otherwise than the list of tickets; 'nailcrow admin rebuild-projections' tells them anew."
            },
            {
                "a guard",
                "SELECT 1",
                TroubleKind.Unguarded,
                "The database's guard 'journal_keeps_every_entry' was taken away or weakened; the next start puts it back."
            },
        };

    [Theory, MemberData(nameof(ByItself))]
    public async Task What_was_done_to_the_file_is_found_and_told_as_what_it_is(string what, string sql, TroubleKind kind, string sentence)
    {
        _store.Tamper(NoGuards + sql);

        (await _store.VerifyAsync()).Troubles.Select(t => (t.Kind, WithoutIds(t.Sentence))).ShouldContain((kind, sentence), what);
    }

    [Fact]
    public async Task A_chain_that_was_rewritten_with_every_hash_right_is_found_against_the_seal()
    {
        _store.Tamper(NoGuards);
        await RewriteAsync(1002, text => text.Replace("Of FSC-2", "Of no machine"));

        (await _store.VerifyAsync()).Troubles.ShouldNotContain(t => t.Kind == TroubleKind.Changed);
        var against = (await _store.VerifyAsync(_seal)).Troubles.Where(t => t.Kind == TroubleKind.NotAsSealed).ToList();

        against.Select(t => t.Ticket).ShouldContain(1002L);
        against.Select(t => t.Ticket).ShouldNotContain(1003L);
        against.ShouldContain(t => t.Sentence.StartsWith("What is there now is not what was sealed", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_ticket_removed_with_every_trace_is_found_against_the_seal()
    {
        _store.Tamper(
            NoGuards
                + "DELETE FROM journal WHERE ticket = 1003; DELETE FROM ticket_line WHERE number = 1003; UPDATE "
                + "sqlite_sequence SET seq = (SELECT MAX(position) FROM journal) WHERE name = 'journal'"
        );

        (await _store.VerifyAsync()).Troubles.Where(t => t.Kind != TroubleKind.Unguarded).ShouldBeEmpty();
        (await _store.VerifyAsync(_seal)).Troubles.Select(t => t.Sentence).ShouldContain("The seal covers 9 entries; 6 are there.");
    }

    [Fact]
    public async Task Entries_put_in_between_what_was_sealed_are_found_against_the_seal()
    {
        _store.Tamper(NoGuards + "UPDATE journal SET position = position + 100 WHERE ticket = 1003");
        await _store.WriteAsync(1002, new NoteWritten("Dated back")); // before it now, by its position
        _store.Tamper("UPDATE journal SET position = 7 WHERE ticket = 1002 AND seq = 4");

        (await _store.VerifyAsync(_seal)).Troubles.ShouldContain(t => t.Kind == TroubleKind.NotAsSealed);
    }

    [Fact]
    public void A_seal_that_was_changed_itself_is_none()
    {
        using var key = SealKey.OfNobody();

        Seal.Parse(_seal.Replace("entries 9", "entries 8"), key)
            .ShouldBe(new Parsed<ReadSeal>.Refused("The seal's signature does not hold: the seal itself was changed."));
        Seal.Parse("nothing", key)
            .ShouldBe(
                new Parsed<ReadSeal>.Refused("This is no seal: it begins with 'nailcrow-seal/1' and ends with a key and a signature.")
            );
    }

    [Fact]
    public async Task A_seal_signed_by_somebody_else_shows_another_key()
    {
        using var theirs = SealKey.OfNobody();
        var mine = (Parsed<ReadSeal>.Ok)Seal.Parse(_seal, theirs);

        var forged = (Parsed<ReadSeal>.Ok)Seal.Parse(mine.Value.Seal.Signed(theirs), theirs);

        forged.Value.Fingerprint.ShouldNotBe(mine.Value.Fingerprint);
        mine.Value.Fingerprint.ShouldBe(_store.Get<Seals>().Fingerprint);
        await Task.CompletedTask;
    }

    [Fact]
    public async Task Guards_that_were_taken_away_are_put_back_at_the_next_start_and_named()
    {
        _store.Tamper(NoGuards);

        (await _store.Get<Database>().MigrateAsync(Ct)).ShouldBe([
            "journal_keeps_every_entry",
            "journal_keeps_what_was_written",
            "photo_keeps_every_picture",
            "photo_keeps_what_was_taken",
        ]);

        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
        Should
            .Throw<System.Data.Common.DbException>(() => _store.Tamper("UPDATE photo SET content = X'00'"))
            .Message.ShouldContain("Pictures belong to the journal: none is ever replaced.");
    }

    [Fact]
    public async Task An_entry_of_a_later_version_is_told_as_one_that_cannot_be_read_and_not_as_changed()
    {
        _store.Tamper(NoGuards);
        await RewriteAsync(1003, text => text.Replace("note-written", "sun-dried"));

        var troubles = (await _store.VerifyAsync()).Troubles.Where(t => t.Kind is TroubleKind.CannotBeRead or TroubleKind.Changed).ToList();

        troubles
            .Select(t => (t.Kind, t.Sentence))
            .ShouldBe([
                (
                    TroubleKind.CannotBeRead,
                    "T-1003 entry 3 (sun-dried) cannot be read by this version: this version does not know the kind."
                ),
            ]);
        (await _store.ReadAfreshAsync(1003)).Ticket.Discrepancies.Single().About.ShouldBe("unreadable");
    }

    [Fact]
    public async Task What_is_not_tampered_with_has_no_troubles_and_is_what_was_sealed()
    {
        await _store.WriteAsync(1001, new NoteWritten("After the seal"));
        Movement came = new(
            Guid.CreateVersion7(),
            "P8NEW00001",
            MovementKind.Came,
            DateTimeOffset.UtcNow,
            "sefa",
            new(HolderKind.Depot, "Stores")
        );
        await _store.Get<LedgerBook>().WriteAsync([came], Ct);
        foreach (var name in new[] { "ilka", "lioth" })
            await _store.Get<SecurityLog>().WriteAsync(new(name, "198.51.100.7"), SecurityEvent.SignedIn, null, "a browser on Linux", Ct);

        var (over, troubles) = await _store.VerifyAsync(_seal);

        troubles.ShouldBeEmpty();
        over.ShouldBe(new Checked(3, 10, 1, 9, Movements: 1, SecurityLines: 2));
    }

    /// <summary>
    /// As somebody would who has read docs/journal.md: every text and hash of a ticket from the first that changes, and what the
    /// lists remember.
    /// </summary>
    private async Task RewriteAsync(long ticket, Func<string, string> rewrite)
    {
        var previous = HashChain.Start;
        foreach (var entry in (await _store.Journal.ReadAsync(ticket, Ct))!.Arrived)
        {
            var text = rewrite(entry.Text);
            previous = HashChain.Next(previous, text);
            _store.Tamper(
                $"UPDATE journal SET text = '{text.Replace("'", "''")}', hash = '{previous}', kind = "
                    + $"json_extract('{text.Replace("'", "''")}', '$.body.kind') WHERE id = "
                    + $"'{entry.Id.ToString().ToUpperInvariant()}'"
            );
        }
        _store.Tamper($"UPDATE ticket_line SET head_hash = '{previous}' WHERE number = {ticket}");
    }

    private static string WithoutIds(string sentence) =>
        System.Text.RegularExpressions.Regex.Replace(sentence, "[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}", "ID");
}
