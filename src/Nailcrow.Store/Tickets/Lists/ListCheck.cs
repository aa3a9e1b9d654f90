using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Procedures;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store.Tickets.Lists;

/// <summary>Reads every entry, folds every ticket, and holds the lists against what that gives.</summary>
internal static class ListCheck
{
    private const int AtOnce = 100;

    /// <param name="tickets">All that have entries.</param>
    public static async Task RunAsync(
        IDbContextFactory<NailcrowDb> dbs,
        IReadOnlyCollection<long> tickets,
        Action<Trouble> tell,
        Action<CheckProgress> progress,
        CancellationToken ct
    )
    {
        var done = 0L;
        foreach (var numbers in tickets.Order().Chunk(AtOnce))
        {
            // Lists and journal as of one moment, while others write.
            await using var db = await dbs.CreateDbContextAsync(ct);
            await using var moment = await db.Product.BeginReadingAsync(db, ct);
            await SomeAsync(db, [.. numbers], tell, ct);
            done += numbers.Length;
            progress(new("lists", done, tickets.Count));
        }
    }

    private static async Task SomeAsync(NailcrowDb db, List<long> numbers, Action<Trouble> tell, CancellationToken ct)
    {
        var rows = await JournalRows.OfTicketsAsync(db, numbers, ct);
        var lines = await ListRows<TicketLineRow>.OfAsync(db, numbers, l => l.Number, ct);
        var places = await ListRows<DrivePlaceRow>.OfAsync(db, numbers, r => r.Ticket, ct);
        var snapshots = await ListRows<SnapshotRow>.OfAsync(db, numbers, r => r.Ticket, ct);
        var lives = await ListRows<LifeEventRow>.OfAsync(db, numbers, r => r.Ticket, ct);
        var times = await ListRows<StepTimeRow>.OfAsync(db, numbers, r => r.Ticket, ct);
        var older = await db
            .TicketLines.Where(l => numbers.Contains(l.Number) && l.Rules != Projecting.ListRules)
            .Select(l => l.Number)
            .ToHashSetAsync(ct);
        var records = new List<TicketRecord>();
        foreach (var ofOne in rows)
        {
            var record = TicketRecord.Of(ofOne.Key, ofOne.Select(EntryReader.Read));
            foreach (var entry in record.Arrived)
                if (entry.Body is Unreadable unreadable)
                    tell(
                        new(
                            TroubleKind.CannotBeRead,
                            entry.Ticket,
                            entry.Seq,
                            $"{TicketNumber.Text(entry.Ticket)} entry {entry.Seq} ({unreadable.Kind}) cannot be read by this version: {unreadable.Why}"
                        )
                    );
            if (older.Contains(ofOne.Key))
                continue; // told by older rules, and about to be told anew
            records.Add(record);
            var told = ListsOfTicket.Of(record);
            var differing = new[]
            {
                ("the list of tickets", lines.Are(ofOne.Key, [told.Line])),
                ("where drives are", places.Are(ofOne.Key, told.Places)),
                ("the snapshots", snapshots.Are(ofOne.Key, told.Snapshots)),
                ("the drives' lives", lives.Are(ofOne.Key, told.Life)),
                ("the times of steps", times.Are(ofOne.Key, told.Times)),
            }
                .Where(l => !l.Item2)
                .Select(l => l.Item1)
                .ToList();
            if (differing.Count > 0)
                tell(
                    new(
                        TroubleKind.ListsDiffer,
                        ofOne.Key,
                        null,
                        $"{TicketNumber.Text(ofOne.Key)}: the journal says otherwise than {string.Join(" and ", differing)}; "
                            + "'nailcrow admin rebuild-projections' tells them anew."
                    )
                );
        }
        await LedgerCheck.AgainstTicketsAsync(db, records, tell, ct);
    }
}
