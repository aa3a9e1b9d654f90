using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;
using Nailcrow.Store.Appliances.Csv;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets.Journal.Sealing;
using Nailcrow.Store.Tickets.Lists;
using Npgsql;

namespace Nailcrow.Store.Tests.Record;

/// <summary>
/// What goes over everything lasts longer the more was kept: it is not given up after the time in which a server has to answer everybody
/// else, and holds nobody up for all of it.
/// </summary>
public sealed class AllTheTimeTests
{
    private const string EveryAnswerIn = ";Command Timeout=2";

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_goes_over_everything_is_waited_for_longer_than_any_other_answer()
    {
        IsAboutTheServer();
        await using var store = new StoreInUse { Reached = EveryAnswerIn };
        await store.InitializeAsync();
        var ticket = await store.OpenAsync();
        await store.Get<LedgerBook>().WriteAsync(Came(3), Ct);

        var (held, connection) = await HeldAsync(store, "journal, ledger, drive, ticket_line");
        List<Task> over =
        [
            store.VerifyAsync(),
            store.Get<Seals>().SealAsync(Ct),
            store.Get<LedgerBook>().BalanceAsync(Ct),
            store.Get<CsvExport>().WriteAsync(ImportKind.Drives, new MemoryStream(), Ct),
            store.Get<Projections>().TellMissingAsync(Ct),
        ];
        await LongerThanAnAnswerAsync(store, ticket);
        over.ShouldAllBe(t => !t.IsCompleted);
        await held.RollbackAsync(Ct);
        await connection.DisposeAsync();

        await Task.WhenAll(over);
    }

    [Fact]
    public async Task An_upgrade_takes_as_long_as_it_takes()
    {
        IsAboutTheServer();
        await using var store = new StoreInUse { Reached = EveryAnswerIn, Migrated = false };
        await store.InitializeAsync();
        await store.BroughtToAsync("20261130101647_NodesSayWhyTheyTakeNoPart"); // the next one has to be alone with the journal

        var (held, connection) = await HeldAsync(store, "journal");
        var upgrade = store.Get<Database>().MigrateAsync(Ct);
        await LongerThanAnAnswerAsync(store, 1001);
        upgrade.IsCompleted.ShouldBeFalse();
        await held.RollbackAsync(Ct);
        await connection.DisposeAsync();

        await upgrade;
        (await store.WriteAsync(await store.OpenAsync(), new NoteWritten("As before"))).Entry.Seq.ShouldBe(2);
    }

    [Fact]
    public async Task While_lists_are_told_anew_whoever_writes_comes_in_between()
    {
        const int Parts = 8_000;
        await using var store = new StoreInUse();
        await store.InitializeAsync();
        var ticket = await store.OpenAsync();
        foreach (var some in Came(Parts).Chunk(500))
            await store.Get<LedgerBook>().WriteAsync(some, Ct);
        var before = store.Dump("part");

        var told = store.Get<Projections>().RebuildAsync(Ct);
        var written = 0;
        while (!told.IsCompleted)
            await store.WriteAsync(ticket, new NoteWritten($"{++written}"));

        await told;
        written.ShouldBeGreaterThan(Parts / 500, "one at least between any two pieces");
        store.Dump("part").ShouldBe(before);
        (await store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Of_four_times_as_many_parts_the_lists_are_told_with_four_times_as_much_to_do()
    {
        StoreInUse.IsAboutTheFile();

        var few = await StepsAsync(4_000, MadeAsync);

        (await StepsAsync(16_000, MadeAsync)).ShouldBeInRange(3 * few, 5 * few);

        static async Task MadeAsync(StoreInUse store, int parts)
        {
            await store.Get<LedgerBook>().WriteAsync(Came(1), Ct);
            store.Tamper(
                $"""
                {Many(parts)} INSERT INTO ledger (serial, seq, id, ticket, at, text, hash)
                SELECT printf('C8TIME%05d', n), seq, printf('00000000-0000-7000-8000-%012d', n), ticket, at,
                  replace(text, 'C8TIME00000', printf('C8TIME%05d', n)), hash FROM ledger, many
                """
            );
        }
    }

    [Fact]
    public async Task Of_four_times_as_much_stock_on_an_old_list_the_ledger_is_told_with_four_times_as_much_to_do()
    {
        StoreInUse.IsAboutTheFile();

        var few = await StepsAsync(2_000, ListedAsync);

        (await StepsAsync(8_000, ListedAsync)).ShouldBeInRange(3 * few, 5 * few);

        static Task ListedAsync(StoreInUse store, int parts)
        {
            store.Tamper(
                $"""
                {Many(parts)} INSERT INTO drive (serial, serial_reversed, model, bytes, depot)
                SELECT printf('C8TIME%05d', n), 'X' || n, 'Cindral C8', 8000000000000, 'Stores' FROM many
                """
            );
            return Task.CompletedTask;
        }
    }

    private static string Many(int parts) => $"WITH RECURSIVE many (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM many WHERE n < {parts})";

    /// <summary>What a start and telling all lists takes of so many parts, which were made and not played.</summary>
    private static async Task<long> StepsAsync(int parts, Func<StoreInUse, int, Task> made)
    {
        await using var store = new StoreInUse();
        using var steps = new StepsTaken(store.File);
        await store.InitializeAsync();
        await made(store, parts);
        var before = steps.Taken;
        await store.Get<Database>().MigrateAsync(Ct);
        await store.Get<Projections>().RebuildAsync(Ct);
        store.Dump("part").Split('\n').Length.ShouldBeGreaterThanOrEqualTo(parts);
        return steps.Taken - before;
    }

    private static List<Movement> Came(int parts) =>
        [
            .. Enumerable
                .Range(0, parts)
                .Select(n => new Movement(
                    Guid.CreateVersion7(),
                    $"C8TIME{n:00000}",
                    MovementKind.Came,
                    DateTimeOffset.UtcNow,
                    "sefa",
                    new Holder(HolderKind.Depot, "Stores"),
                    Part: new("Cindral C8", 8_000_000_000_000)
                )),
        ];

    /// <summary>Somebody at the database has these tables to themselves until they let go.</summary>
    private static async Task<(NpgsqlTransaction Held, NpgsqlConnection Connection)> HeldAsync(StoreInUse store, string tables)
    {
        var connection = new NpgsqlConnection(store.Server);
        await connection.OpenAsync(Ct);
        var held = await connection.BeginTransactionAsync(Ct);
        await using var command = new NpgsqlCommand($"LOCK TABLE {tables} IN ACCESS EXCLUSIVE MODE", connection, held);
        await command.ExecuteNonQueryAsync(Ct);
        return (held, connection);
    }

    /// <summary>Whoever asks anything else is told that the server does not answer: twice, so that others who wait have waited for longer.</summary>
    private static async Task LongerThanAnAnswerAsync(StoreInUse store, long ticket)
    {
        for (var asked = 0; asked < 2; asked++)
            StorageFaults.Of(await Xunit.Record.ExceptionAsync(() => store.Journal.ReadAsync(ticket, Ct))).ShouldBe(StorageFault.Away);
    }

    private static void IsAboutTheServer() => Assert.SkipUnless(PostgresServer.IsTested, "Nobody holds a file that a service has.");
}
