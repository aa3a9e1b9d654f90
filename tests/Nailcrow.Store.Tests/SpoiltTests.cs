using Microsoft.Data.Sqlite;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Procedures;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tests;

/// <summary>Whatever somebody makes of a value in the file, it is told by verify and keeps nobody from working; lists are told anew.</summary>
public sealed class SpoiltTests : IAsyncLifetime
{
    private static readonly string[] Lists = ["ticket_line", "drive_place", "snapshot", "drive_life"];

    private readonly StoreInUse _store = new();

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public ValueTask InitializeAsync()
    {
        StoreInUse.IsAboutTheFile();
        return _store.InitializeAsync();
    }

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    [
        Theory,
        InlineData("'garbage'"),
        InlineData("''"),
        InlineData("-7"),
        InlineData("9223372036854775807"),
        InlineData("X'00FF'"),
        InlineData("3.7")
    ]
    public async Task Whatever_stands_in_a_column_of_a_list_is_told_and_mended_and_nobody_is_kept_from_reading_and_writing(string garbage)
    {
        var ticket = await _store.OpenAsync();
        await _store.WriteAsync(ticket, new SnapshotTaken(new(At, "typed", [new("2", BayRole.Member, Serial: "P8BADD0517")], [])));
        await _store.WriteAsync(ticket, new DrivePulled("2", "P8BADD0517"));
        Dump().ShouldNotContain("", "each list has a row to be spoilt");

        foreach (var (list, column) in Lists.SelectMany(list => Columns(list).Select(c => (list, c.Name))))
        {
            var what = $"{list}.{column} = {garbage}";
            if (!Spoil(list, column, garbage))
                continue;

            await Should.NotThrowAsync(ReadAllAsync, what);
            if (column != "rules") // a line told by other rules than today's is told anew anyway
                (await _store.VerifyAsync()).Troubles.ShouldContain(t => t.Kind == TroubleKind.ListsDiffer, what);
            await Should.NotThrowAsync(() => _store.WriteAsync(ticket, new NoteWritten("Work goes on")), what);
            await _store.Get<Projections>().RebuildAsync(Ct);
            (await _store.VerifyAsync()).Troubles.ShouldBeEmpty(what);
        }
    }

    [Theory, InlineData("'garbage'"), InlineData("-7"), InlineData("9223372036854775807"), InlineData("1e300"), InlineData("X'00FF'")]
    public async Task Times_of_steps_that_are_none_keep_nobody_from_the_others(string garbage)
    {
        var ticket = await _store.OpenAsync();
        foreach (var (column, _) in Columns("step_time"))
        {
            _store.Tamper(
                "DELETE FROM step_time; INSERT INTO step_time VALUES "
                    + $"({string.Join(", ", Columns("step_time").Select(c => c.Type == "TEXT" ? "'of-a-run'" : c.Name == "ticket" ? $"{ticket}" : "1"))})"
            );
            (await _store.Get<StepTimes>().OfAsync("of-a-run", Ct)).ShouldHaveSingleItem();

            Spoil("step_time", column, garbage).ShouldBeTrue();

            await Should.NotThrowAsync(() => _store.Get<StepTimes>().OfAsync("of-a-run", Ct), column);
            await Should.NotThrowAsync(() => _store.VerifyAsync(), column);
        }
    }

    [
        Theory,
        InlineData("'garbage'"),
        InlineData("''"),
        InlineData("-7"),
        InlineData("9223372036854775807"),
        InlineData("X'00FF'"),
        InlineData("3.7")
    ]
    public async Task Whatever_stands_in_a_column_of_the_journal_is_told_and_nobody_is_kept_from_reading_that_ticket_or_writing_on_others(
        string garbage
    )
    {
        var other = await _store.OpenAsync();
        foreach (var column in Columns("journal").Select(c => c.Name))
        {
            var what = $"journal.{column} = {garbage}";
            var ticket = await _store.OpenAsync();
            await _store.WriteAsync(ticket, new DrivePulled("2", "P8BADD0517"));
            await _store.WriteAsync(ticket, new NoteWritten("Key is with the porter"));
            _store.Tamper("DROP TRIGGER IF EXISTS journal_keeps_every_entry; DROP TRIGGER IF EXISTS journal_keeps_what_was_written");
            var known = await ToldAsync();
            if (Refused(() => _store.Tamper($"UPDATE OR REPLACE journal SET \"{column}\" = {garbage} WHERE ticket = {ticket} AND seq = 2")))
                continue;

            (await ToldAsync()).Except(known).ShouldNotBeEmpty(what);
            if (what == "journal.position = 9223372036854775807")
                return; // there is no number after it, and what was numbered is never numbered anew: only a backup helps
            await Should.NotThrowAsync(() => _store.ReadAfreshAsync(ticket), what);
            await Should.NotThrowAsync(() => _store.WriteAsync(other, new NoteWritten("Work goes on")), what);
            await Should.NotThrowAsync(() => _store.OpenAsync(), what);
            await Should.NotThrowAsync(() => _store.Get<Projections>().RebuildAsync(Ct), what);
        }
    }

    private async Task<List<string>> ToldAsync() =>
        [
            .. (await _store.VerifyAsync())
                .Troubles.Where(t => t.Kind is not TroubleKind.ListsDiffer and not TroubleKind.Unguarded)
                .Select(t => t.Sentence),
        ];

    /// <returns>False where the database itself does not take it: a number of a row is nothing but a number.</returns>
    private bool Spoil(string list, string column, string garbage) =>
        !Refused(() =>
            _store.Tamper($"UPDATE OR REPLACE {list} SET \"{column}\" = {garbage} WHERE rowid = (SELECT min(rowid) FROM {list})")
        );

    private static bool Refused(Action tampering)
    {
        try
        {
            tampering();
            return false;
        }
        catch (SqliteException e) when (e.SqliteErrorCode == 20) // SQLITE_MISMATCH
        {
            return true;
        }
    }

    private static readonly DateTimeOffset At = new(2026, 11, 2, 8, 0, 0, TimeSpan.Zero);

    /// <summary>What every list answers, for everything that is on it.</summary>
    private async Task ReadAllAsync()
    {
        var (lines, drives) = (_store.Get<TicketLines>(), _store.Get<Drives>());
        await lines.FindAsync(new TicketSearch(), Ct);
        await lines.FindAsync(new TicketSearch(Find: "D0517"), Ct);
        await lines.FindAsync(new TicketSearch(Ended: false, Order: TicketOrder.Worst), Ct);
        await lines.WaitingAsync(StoreInUse.Ilka, 100, 100, Ct);
        await lines.LoadsAsync(["ilka"], Ct);
        await lines.AtAsync(["FSC-1"], At, Ct);
        await lines.VisitsAsync("ilka", At, Ct);
        await lines.WatchedAsync(Ct);
        await drives.LifeAsync("P8BADD0517", Ct);
        await drives.SnapshotsAsync("FSC-1", 10, Ct);
        await drives.LatestAsync(["FSC-1"], Ct);
        await drives.StockAsync(null, Ct);
    }

    private List<string> Dump() => [.. Lists.Select(_store.Dump)];

    private List<(string Name, string Type)> Columns(string list)
    {
        using var connection = new SqliteConnection($"Data Source={_store.File}");
        connection.Open();
        using var ask = connection.CreateCommand();
        ask.CommandText = $"SELECT name, type FROM pragma_table_info('{list}')";
        using var row = ask.ExecuteReader();
        var columns = new List<(string, string)>();
        while (row.Read())
            columns.Add((row.GetString(0), row.GetString(1)));
        return columns;
    }
}
