using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Store.Tickets;

/// <summary>Throws the lists away and makes them again from the journal.</summary>
public sealed class Projections(IDbContextFactory<NailcrowDb> dbs)
{
    /// <summary>In one transaction: readers see the old lists or the new ones, never half.</summary>
    /// <returns>How many tickets were told again.</returns>
    public async Task<long> RebuildAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await db.DrivePlaces.ExecuteDeleteAsync(ct);
        await db.TicketLines.ExecuteDeleteAsync(ct);
        await db.Snapshots.ExecuteDeleteAsync(ct);
        await db.LifeEvents.ExecuteDeleteAsync(ct);
        await db.StepTimes.ExecuteDeleteAsync(ct);
        var numbers = await db.Journal.Select(r => r.Ticket).Distinct().OrderBy(n => n).ToListAsync(ct);
        foreach (var some in numbers.Chunk(200))
        {
            foreach (var number in some)
                await AddAsync(db, number, ct);
            await db.SaveChangesAsync(ct);
            db.ChangeTracker.Clear();
        }
        await transaction.CommitAsync(ct);
        return numbers.Count;
    }

    private static async Task AddAsync(NailcrowDb db, long number, CancellationToken ct)
    {
        var rows = await db.Journal.AsNoTracking().Where(r => r.Ticket == number).OrderBy(r => r.Seq).ToListAsync(ct);
        var record = TicketRecord.Of(number, rows.Select(r => r.ToEntry()));
        db.TicketLines.Add(Projecting.Line(record));
        db.DrivePlaces.AddRange(Projecting.Places(record));
        db.Snapshots.AddRange(Projecting.Snapshots(record));
        db.LifeEvents.AddRange(Projecting.Life(record));
        db.StepTimes.AddRange(Projecting.StepTimes(record));
    }
}
