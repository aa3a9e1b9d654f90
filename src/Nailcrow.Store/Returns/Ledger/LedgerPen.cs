using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>Writes lines of the ledger, in whatever transaction is open, with the row that says where each part is now.</summary>
/// <param name="lines">Those of parts that were read in this turn are known: nobody else writes to them in it.</param>
internal sealed class LedgerPen(NailcrowDb db, PreparedRows<LedgerRow> ledger, PreparedRows<PartRow> parts, KeptLines lines)
{
    public LedgerPen(NailcrowDb db)
        : this(db, new(db), new(db), new(db)) { }

    /// <summary>Lines that are there already are not written again; one that was undone and is so after all is taken as so again.</summary>
    /// <param name="cause">The entry that brought them about; null for what stores does by itself.</param>
    /// <returns>The lines that were written.</returns>
    public async Task<IReadOnlyList<Movement>> WriteAsync(IEnumerable<Movement> movements, Entry? cause, DateTimeOffset now)
    {
        var written = new List<Movement>();
        foreach (var ofOne in movements.GroupBy(m => SerialNumber.Normalise(m.Serial)))
        {
            var rows = await lines.OfAsync(ofOne.Key);
            var (hash, kept) = (rows.Count == 0 ? HashChain.Start : rows[^1].Hash, Read(rows));
            var (before, was) = (written.Count, PartRow.Of(PartLine.Of(ofOne.Key, kept)));
            foreach (var movement in ofOne)
            {
                if (PartLine.Due(ofOne.Key, kept, movement, cause) is not { } due)
                    continue;
                var numbered = due with
                {
                    Serial = ofOne.Key,
                    Seq = (rows.Count == 0 ? 0 : rows[^1].Seq) + 1,
                    RecordedAt = Milliseconds(now),
                    At = Milliseconds(due.At),
                };
                var text = MovementText.Of(numbered);
                hash = HashChain.Next(hash, text);
                await ledger.InsertAsync(Row(numbered, text, hash));
                rows.Add(new(numbered.Seq, hash, numbered));
                kept.Add(numbered);
                written.Add(numbered);
            }
            if (written.Count > before)
                await TellAsync(ofOne.Key, was, PartRow.Of(PartLine.Of(ofOne.Key, kept)));
        }
        return written;
    }

    public async Task<PartLine> LineAsync(string serial)
    {
        var key = SerialNumber.Normalise(serial);
        return PartLine.Of(key, Read(await lines.OfAsync(key)));
    }

    /// <summary>Of nine indexes over parts a movement touches two or three: only what differs is written.</summary>
    private Task TellAsync(string serial, PartRow? was, PartRow? row) =>
        (was, row) switch
        {
            (_, null) => db.Parts.Where(p => p.Serial == serial).ExecuteDeleteAsync(),
            (null, _) => parts.UpsertAsync(row),
            _ => parts.UpdateAsync(was, row),
        };

    /// <summary>Where some parts are, told anew from the ledger alone: those that come next after a serial.</summary>
    /// <returns>The serial after which the next come; null where these were the last.</returns>
    public async Task<string?> TellSomeAsync(string after)
    {
        var (upTo, lines) = await LedgerCheck.SomeAsync(db, after, CancellationToken.None);
        var told = lines.Select(PartRow.Of).OfType<PartRow>().ToList();
        var serials = told.ConvertAll(r => r.Serial);
        await LedgerCheck.Listed(db, after, upTo).Where(p => !serials.Contains(p.Serial)).ExecuteDeleteAsync();
        foreach (var row in told)
            await parts.UpsertAsync(row);
        return upTo;
    }

    private static List<Movement> Read(IEnumerable<KeptLine> lines) => [.. lines.Select(l => l.Says).OfType<Movement>()];

    private static LedgerRow Row(Movement movement, string text, string hash) =>
        new()
        {
            Serial = movement.Serial,
            Seq = movement.Seq,
            Id = movement.Id,
            Ticket = movement.Ticket,
            At = movement.At,
            Text = text,
            Hash = hash,
        };

    internal static DateTimeOffset Milliseconds(DateTimeOffset at) =>
        at.ToUniversalTime().AddTicks(-(at.UtcTicks % TimeSpan.TicksPerMillisecond));
}
