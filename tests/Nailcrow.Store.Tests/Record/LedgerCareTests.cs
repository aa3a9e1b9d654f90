using System.Security.Cryptography;
using System.Text;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Appliances.Csv;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tests.Record;

/// <summary>The ledger of parts: filled from what was there before it, and held as the journal is. Each on a store of its own.</summary>
public sealed class LedgerCareTests : IAsyncLifetime
{
    private const string NoGuards = "DROP TRIGGER ledger_keeps_every_line; DROP TRIGGER ledger_keeps_what_was_written; ";
    private const string Part = "C8NEWW2286";

    private readonly StoreInUse _store = new();

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    /// <summary>A drive came out, a part went in; one hand-over was a slip; and a spare lies on a shelf.</summary>
    public async ValueTask InitializeAsync()
    {
        await _store.InitializeAsync();
        await ImportAsync("serial,model,size,depot\nSHELF00001,Cindral C8,8TB,Stores\n");
        var ticket = await _store.OpenAsync();
        await _store.WriteAsync(ticket, new PartReserved(Part, "Cindral C8", 8_000_000_000_000, "Stores"));
        var slip = await _store.WriteAsync(ticket, new PartIssued(Part, "wenna"));
        await _store.WriteAsync(ticket, new EntryCorrected(slip.Entry.Id, "It was ilka."));
        await _store.WriteAsync(ticket, new PartIssued(Part, "ilka"));
        await _store.WriteAsync(ticket, new DrivePulled("2", "P8BADD0517"));
        await _store.WriteAsync(ticket, new DriveInserted("2", Part));
        await _store.WriteAsync(ticket, new DriveKept("P8BADD0517", "R. Alder"));
    }

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    private async Task ImportAsync(string csv)
    {
        var file = Path.GetTempFileName();
        await File.WriteAllTextAsync(file, csv, Ct);
        var done = await _store.Get<CsvImport>().RunAsync(ImportKind.Drives, file, dryRun: false, allOrNothing: true, "sefa", Ct);
        File.Delete(file);
        done.Problems.ShouldBeEmpty();
    }

    private LedgerBook Book => _store.Get<LedgerBook>();

    [Fact]
    public async Task What_was_there_before_there_was_a_ledger_is_in_it_after_the_upgrade_once()
    {
        var before = await HoldersAsync();
        _store.Tamper(
            NoGuards
                + "DELETE FROM ledger; DELETE FROM sqlite_sequence WHERE name = 'ledger'; DELETE FROM part; UPDATE ticket_line SET rules = 8"
        );

        for (var start = 0; start < 2; start++)
        {
            await _store.Get<Database>().MigrateAsync(Ct);
            await _store.Get<Projections>().BringUpToDateAsync(Ct);
            _store.Tamper("UPDATE ticket_line SET rules = 8"); // told once more, and not written once more
        }
        await _store.Get<Projections>().BringUpToDateAsync(Ct);

        (await HoldersAsync()).ShouldBe(before);
        (await Book.LineAsync("SHELF00001", Ct)).Movements.Count.ShouldBe(1);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
        (await Book.BalanceAsync(Ct)).Difference.ShouldBe(0);
    }

    private async Task<string> HoldersAsync()
    {
        var told = new List<string>();
        foreach (var serial in new[] { Part, "P8BADD0517", "SHELF00001" })
            told.Add(
                $"{serial}: {string.Join(", ", (await Book.LineAsync(serial, Ct)).Movements.Where(m => m.To is not null).Select(m => m.To))}"
            );
        return string.Join("; ", told);
    }

    [Fact]
    public async Task A_list_puts_nothing_into_the_van_of_nobody()
    {
        var file = Path.GetTempFileName();
        await File.WriteAllTextAsync(file, "serial,model,size,depot\nVAN0000001,Cindral C8,8TB,van of ilca\n", Ct);
        var done = await _store.Get<CsvImport>().RunAsync(ImportKind.Drives, file, dryRun: false, allOrNothing: true, "sefa", Ct);
        File.Delete(file);

        done.Problems.ShouldHaveSingleItem()
            .Reason.ShouldBe("depot is 'van of ilca': 'ilca' is no engineer here, and has no van; there is no engineer yet.");
        (await Book.LineAsync("VAN0000001", Ct)).Movements.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_list_that_comes_again_moves_nothing_that_the_ledger_knows()
    {
        await ImportAsync($"serial,model,size,depot\n{Part},Cindral C8,8TB,Stores\nSHELF00001,Cindral C8,8TB,Elsewhere\n");

        (await Book.LineAsync(Part, Ct)).Holder!.Kind.ShouldBe(HolderKind.Bay);
        (await Book.LineAsync("SHELF00001", Ct)).Holder!.Name.ShouldBe("Stores");
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Parts_of_a_firm_without_a_ticket_are_told_anew_as_well_once_a_release_knows_more_of_them()
    {
        await using var store = new StoreInUse();
        await store.InitializeAsync();
        Movement came = new(
            Guid.CreateVersion7(),
            "C8OLD00O01",
            MovementKind.Came,
            DateTimeOffset.UtcNow,
            "sefa",
            new(HolderKind.Depot, "Stores")
        );
        await store.Get<LedgerBook>().WriteAsync([came], Ct);
        (await store.Get<Projections>().AreStaleAsync(Ct)).ShouldBeFalse();
        store.Tamper("UPDATE part SET looks = NULL"); // as the release before wrote it, and writes it beside this one

        (await store.Get<Projections>().AreStaleAsync(Ct)).ShouldBeTrue();
        await store.Get<Projections>().BringUpToDateAsync(Ct);

        (await store.Get<Projections>().AreStaleAsync(Ct)).ShouldBeFalse();
        (await store.Get<LedgerBook>().AlikeAsync("C8OLDO0001", Ct)).Select(p => p.Serial).ShouldBe(["C8OLD00O01"]);
    }

    [Fact]
    public async Task What_an_earlier_release_told_of_parts_is_told_by_todays_rules_after_the_upgrade()
    {
        var before = _store.Dump("part");
        _store.Tamper("UPDATE part SET apart = 'evidence', going = NULL; UPDATE ticket_line SET rules = 10");
        (await _store.Get<Projections>().AreStaleAsync(Ct)).ShouldBeTrue();

        await _store.Get<Projections>().BringUpToDateAsync(Ct);

        _store.Dump("part").ShouldBe(before);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Where_parts_are_is_told_anew_from_the_ledger_alone()
    {
        var parts = _store.Dump("part");
        _store.Tamper("UPDATE part SET holder = 'Nowhere' WHERE serial = 'SHELF00001'; DELETE FROM part WHERE serial = 'C8NEWW2286'");
        (await _store.VerifyAsync()).Troubles.Select(t => t.Kind).ShouldBe([TroubleKind.ListsDiffer, TroubleKind.ListsDiffer]);

        await _store.Get<Projections>().RebuildAsync(Ct);

        _store.Dump("part").ShouldBe(parts);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    public static TheoryData<string, string, TroubleKind, string> Ways =>
        new()
        {
            {
                "a word of a line",
                "UPDATE ledger SET text = replace(text, 'Cindral', 'Pellworth') WHERE serial = 'SHELF00001'",
                TroubleKind.Changed,
                "SHELF00001: line 1 of the ledger is not what was written."
            },
            {
                "a line out of the middle",
                "DELETE FROM ledger WHERE serial = 'C8NEWW2286' AND seq = 2",
                TroubleKind.Missing,
                "C8NEWW2286: the lines of the ledger from 2 to 2 are missing."
            },
            {
                "the last line of a part",
                "DELETE FROM ledger WHERE serial = 'P8BADD0517' AND seq = 2",
                TroubleKind.Missing,
                "1 lines of the ledger of parts that were written are not there any more."
            },
            {
                "a line, with its hash made anew",
                "UPDATE ledger SET ticket = 1007 WHERE serial = 'P8BADD0517' AND seq = 2",
                TroubleKind.Changed,
                "P8BADD0517: line 2 of the ledger is listed as another than it says."
            },
            {
                "a text that nobody can read",
                "UPDATE ledger SET text = '{' WHERE serial = 'SHELF00001'",
                TroubleKind.CannotBeRead,
                "SHELF00001: line 1 of the ledger cannot be read by this version."
            },
            {
                "the guards",
                "SELECT 1",
                TroubleKind.Unguarded,
                "The database's guard 'ledger_keeps_every_line' was taken away or weakened; the next start puts it back."
            },
        };

    [Theory, MemberData(nameof(Ways))]
    public async Task What_somebody_does_to_it_is_found_and_told_as_what_it_is(string what, string sql, TroubleKind kind, string sentence)
    {
        _store.Tamper(NoGuards + sql);

        var troubles = (await _store.VerifyAsync()).Troubles;

        troubles.ShouldContain(
            t => t.Kind == kind && t.Sentence == sentence,
            $"{what}: {string.Join("\n", troubles.Select(t => t.Sentence))}"
        );
    }

    private static string Hash(string before, string text) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(before + text)));

    [Fact]
    public async Task Whoever_writes_a_part_anew_with_every_hash_right_or_cuts_its_end_off_without_a_trace_is_shown_by_the_seal()
    {
        var first = (await _store.Get<Seals>().SealAsync(Ct)).Text;
        await Book.WriteAsync(
            [
                new(
                    Guid.CreateVersion7(),
                    "SHELF00001",
                    MovementKind.Went,
                    DateTimeOffset.UtcNow,
                    "sefa",
                    new(HolderKind.Depot, "Stores", "S9")
                ),
            ],
            Ct
        );
        var second = (await _store.Get<Seals>().SealAsync(Ct)).Text;
        second.ShouldNotBe(first); // nothing was written on a ticket, and the ledger has grown
        foreach (var seal in new[] { first, second })
            (await _store.VerifyAsync(seal)).Troubles.ShouldBeEmpty();

        var was = (await Book.LineAsync("SHELF00001", Ct)).Movements;
        var texts = was.Select(m => MovementText.Of(m).Replace("Stores", "Stares")).ToList();
        var (one, two) = (Hash(new('0', 64), texts[0]), Hash(Hash(new('0', 64), texts[0]), texts[1]));
        _store.Tamper(
            NoGuards
                + $"UPDATE ledger SET text = '{texts[0]}', hash = '{one}' WHERE serial = 'SHELF00001' AND seq = 1;"
                + $"UPDATE ledger SET text = '{texts[1]}', hash = '{two}' WHERE serial = 'SHELF00001' AND seq = 2"
        );
        await _store.Get<Projections>().RebuildAsync(Ct);

        (await _store.VerifyAsync()).Troubles.Select(t => t.Kind).ShouldBe([TroubleKind.Unguarded, TroubleKind.Unguarded]); // nothing else shows
        (await _store.VerifyAsync(first)).Troubles.ShouldContain(t => t.Sentence.Contains("The ledger of parts is not what was sealed on"));

        _store.Tamper(
            "DELETE FROM ledger WHERE serial = 'SHELF00001' AND seq = 2; UPDATE sqlite_sequence SET seq = seq - 1 WHERE name = 'ledger'"
        );
        (await _store.VerifyAsync(second)).Troubles.ShouldContain(t =>
            t.Kind == TroubleKind.Missing && t.Sentence.StartsWith("The seal covers ")
        );
    }

    [Fact]
    public void The_database_itself_refuses_to_change_or_remove_a_line()
    {
        Should.Throw<System.Data.Common.DbException>(() => _store.Tamper("DELETE FROM ledger")).Message.ShouldContain("append-only");
        Should
            .Throw<System.Data.Common.DbException>(() => _store.Tamper("UPDATE ledger SET text = NULL"))
            .Message.ShouldContain("append-only");
    }

    [Fact]
    public async Task Two_movements_of_one_part_from_two_people_at_once_are_both_in_its_line()
    {
        var shelves = Enumerable.Range(0, 20).Select(n => new Holder(HolderKind.Depot, "Stores", $"S{n}"));

        await Task.WhenAll(
            shelves.Select(to =>
                Book.WriteAsync([new(Guid.CreateVersion7(), "SHELF00001", MovementKind.Went, DateTimeOffset.UtcNow, "sefa", to)], Ct)
            )
        );

        var line = await Book.LineAsync("SHELF00001", Ct);
        line.Movements.Count.ShouldBe(21);
        line.Movements.Select(m => m.Seq).Order().ShouldBe(Enumerable.Range(1, 21).Select(n => (long)n));
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }
}
