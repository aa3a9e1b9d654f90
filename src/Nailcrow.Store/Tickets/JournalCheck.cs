using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Store.Tickets;

/// <summary>What re-computing every chain found.</summary>
public sealed record JournalVerdict(long Tickets, long Entries, string? FirstBad);

/// <summary>Re-computes the hash chain of every ticket.</summary>
public sealed class JournalCheck(IDbContextFactory<NailcrowDb> dbs)
{
    public async Task<JournalVerdict> VerifyAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var (tickets, entries) = (0L, 0L);
        await foreach (var rows in ByTicketAsync(db, ct))
        {
            tickets++;
            entries += rows.Count;
            if (await ProblemAsync(db, rows, ct) is { } bad)
                return new(tickets, entries, bad);
        }
        // A ticket cut away whole leaves no chain to break, but its line in the lists still says that it was there.
        var gone = await db.TicketLines.Where(l => !db.Journal.Any(j => j.Ticket == l.Number)).Select(l => (long?)l.Number).FirstOrDefaultAsync(ct);
        return new(tickets, entries, gone is { } lost ? $"{TicketNumber.Text(lost)} has no entries left." : null);
    }

    private static async Task<string?> ProblemAsync(NailcrowDb db, List<JournalRow> rows, CancellationToken ct)
    {
        var number = rows[0].Ticket;
        try
        {
            if (HashChain.FirstBroken(rows.Select(r => r.ToEntry())) is { } broken)
                return $"{TicketNumber.Text(number)} entry {broken.Seq} ({broken.Id}) is not what was written.";
        }
        catch (InvalidDataException e)
        {
            return e.Message;
        }
        // Entries cut off the end leave a chain that holds; the line remembers how long it was.
        var line = await db.TicketLines.AsNoTracking().FirstOrDefaultAsync(l => l.Number == number, ct);
        return line is not null && (line.Head != rows[^1].Seq || line.HeadHash != rows[^1].Hash)
            ? $"{TicketNumber.Text(number)} ends at entry {rows[^1].Seq}; {line.Head} were written."
            : null;
    }

    private static async IAsyncEnumerable<List<JournalRow>> ByTicketAsync(NailcrowDb db, [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken ct)
    {
        var rows = new List<JournalRow>();
        await foreach (var row in db.Journal.AsNoTracking().OrderBy(r => r.Ticket).ThenBy(r => r.Seq).AsAsyncEnumerable().WithCancellation(ct))
        {
            if (rows.Count > 0 && rows[0].Ticket != row.Ticket)
            {
                yield return rows;
                rows = [];
            }
            rows.Add(row);
        }
        if (rows.Count > 0)
            yield return rows;
    }
}
