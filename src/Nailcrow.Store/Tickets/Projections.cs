using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Procedures;
using Nailcrow.Store.Swaps;

namespace Nailcrow.Store.Tickets;

/// <summary>
/// Tells the lists anew from the journal, some tickets at a time and each of them whole, in its turn among the writers: the
/// service answers meanwhile, and what was told stays told when it is interrupted.
/// </summary>
public sealed class Projections(IDbContextFactory<NailcrowDb> dbs, TicketJournal journal)
{
    // As many as hold writers up for some tens of milliseconds.
    private const int AtOnce = 200;

    /// <summary>Every ticket, whatever its lists say now.</summary>
    /// <returns>How many tickets were told again.</returns>
    public async Task<long> RebuildAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await journal.AloneAsync(MarkAllAsync, ct);
        return await BringUpToDateAsync(ct) + await TellMissingAsync(ct);
    }

    /// <summary>The tickets that were told by other rules than today's.</summary>
    public async Task<long> BringUpToDateAsync(CancellationToken ct)
    {
        for (long told = 0, after = 0; ; )
        {
            await using var db = await dbs.CreateDbContextAsync(ct);
            var stale = await db.TicketLines.Where(l => l.Rules != Projecting.ListRules && l.Number > after).OrderBy(l => l.Number).Select(l => l.Number).Take(AtOnce).ToListAsync(ct);
            if (stale.Count == 0)
                return told;
            await journal.AloneAsync(connection => TellAsync(connection, stale), ct);
            (told, after) = (told + stale.Count, stale[^1]); // one that could not be told is left for the next time, not tried for ever
        }
    }

    /// <summary>
    /// Whether some ticket was told by other rules than today's, or there are entries and no lists at all. Asked at every start, so
    /// it is one question that nothing has to be compiled for.
    /// </summary>
    public async Task<bool> AreStaleAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db.Database.OpenConnectionAsync(ct);
        await using var ask = db.Database.GetDbConnection().CreateCommand();
        ask.CommandText = $"SELECT CASE WHEN EXISTS (SELECT 1 FROM ticket_line WHERE rules <> {Projecting.ListRules}) OR (NOT EXISTS (SELECT 1 FROM ticket_line) AND EXISTS (SELECT 1 FROM journal)) THEN 1 ELSE 0 END";
        return Convert.ToInt64(await ask.ExecuteScalarAsync(ct), CultureInfo.InvariantCulture) == 1;
    }

    /// <summary>Tickets that have entries and no line.</summary>
    public async Task<long> TellMissingAsync(CancellationToken ct)
    {
        for (long told = 0, after = 0; ; )
        {
            await using var db = await dbs.CreateDbContextAsync(ct);
            var missing = await db.Journal.Where(r => r.Ticket > after && !db.TicketLines.Any(l => l.Number == r.Ticket)).Select(r => r.Ticket).Distinct().OrderBy(n => n).Take(AtOnce).ToListAsync(ct);
            if (missing.Count == 0)
                return told;
            await journal.AloneAsync(connection => TellAsync(connection, missing), ct);
            (told, after) = (told + missing.Count, missing[^1]);
        }
    }

    private static async Task MarkAllAsync(JournalConnection connection)
    {
        var db = connection.Db;
        await db.TicketLines.Where(l => !db.Journal.Any(r => r.Ticket == l.Number)).ExecuteDeleteAsync();
        await db.TicketLines.ExecuteUpdateAsync(set => set.SetProperty(l => l.Rules, -1));
    }

    private static async Task TellAsync(JournalConnection connection, IReadOnlyList<long> numbers)
    {
        var db = connection.Db;
        await db.DrivePlaces.Where(r => numbers.Contains(r.Ticket)).ExecuteDeleteAsync();
        await db.Snapshots.Where(r => numbers.Contains(r.Ticket)).ExecuteDeleteAsync();
        await db.LifeEvents.Where(r => numbers.Contains(r.Ticket)).ExecuteDeleteAsync();
        await db.StepTimes.Where(r => numbers.Contains(r.Ticket)).ExecuteDeleteAsync();
        var rows = await JournalRows.OfTicketsAsync(db, numbers[0], numbers[^1], CancellationToken.None);
        foreach (var number in numbers)
            await TellAsync(connection, TicketRecord.Of(number, rows[number].Select(EntryReader.Read)));
    }

    private static async Task TellAsync(JournalConnection connection, TicketRecord record)
    {
        await connection.Lines.UpsertAsync(Projecting.Line(record));
        foreach (var place in Projecting.Places(record))
            await connection.Rows<DrivePlaceRow>().InsertAsync(place);
        foreach (var snapshot in Projecting.Snapshots(record))
            await connection.Rows<SnapshotRow>().InsertAsync(snapshot);
        foreach (var seen in Projecting.Life(record))
            await connection.Rows<LifeEventRow>().InsertAsync(seen);
        foreach (var time in Projecting.StepTimes(record))
            await connection.Rows<StepTimeRow>().InsertAsync(time);
    }
}
