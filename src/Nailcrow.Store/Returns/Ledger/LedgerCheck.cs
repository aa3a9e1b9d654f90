using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns.Supplies;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>Holds the ledger of parts against itself, against the tickets, and the list of where parts are against it.</summary>
internal static class LedgerCheck
{
    private const int TellEvery = 10_000;
    private const int AtOnce = 40;

    // As many as hold writers up for some tens of milliseconds.
    private const int InAPiece = 400;
    private const int Ahead = 4;

    /// <summary>Computes each part's chain again from the stored text.</summary>
    /// <returns>How many lines there are.</returns>
    public static async Task<long> ChainsAsync(NailcrowDb db, Action<Trouble> tell, Action<CheckProgress> progress, CancellationToken ct)
    {
        var (serial, seq, hash, done) = ("", 0L, HashChain.Start, 0L);
        var most = await db.Ledger.LongCountAsync(ct);
        await foreach (
            var row in db.Ledger.AsNoTracking().OrderBy(r => r.Serial).ThenBy(r => r.Seq).AsAsyncEnumerable().WithCancellation(ct)
        )
        {
            if (row.Serial != serial)
                (serial, seq, hash) = (row.Serial, 0, HashChain.Start);
            if (row.Seq != seq + 1)
                tell(Of(TroubleKind.Missing, row, $"the lines of the ledger from {seq + 1} to {row.Seq - 1} are missing"));
            else if (HashChain.Next(hash, row.Text) != row.Hash)
                tell(Of(TroubleKind.Changed, row, $"line {row.Seq} of the ledger is not what was written"));
            if (row.Says() is not { } said)
                tell(Of(TroubleKind.CannotBeRead, row, $"line {row.Seq} of the ledger cannot be read by this version"));
            else if (said != (row.Serial, row.Seq, row.Id, row.Ticket))
                tell(Of(TroubleKind.Changed, row, $"line {row.Seq} of the ledger is listed as another than it says"));
            (seq, hash) = (row.Seq, row.Hash);
            if (++done % TellEvery == 0)
                progress(new("movements", done, most));
        }
        if (await db.Product.EverGivenAsync(db, "ledger", ct) is var given && given > done)
            tell(
                new(
                    TroubleKind.Missing,
                    null,
                    null,
                    $"{given - done} lines of the ledger of parts that were written are not there any more."
                )
            );
        return done;
    }

    /// <summary>The hashes of lines in order of arrival, after so many of them.</summary>
    public static IAsyncEnumerable<string> HashesAsync(NailcrowDb db, long after) =>
        db.Ledger.AsNoTracking().OrderBy(r => r.Position).Skip((int)after).Select(r => r.Hash).AsAsyncEnumerable();

    /// <summary>The lines that were sealed are there, in their order, as they were: whoever wrote a part's line anew wrote its hashes anew too.</summary>
    public static async Task AgainstSealAsync(NailcrowDb db, Seal seal, Action<Trouble> tell, CancellationToken ct)
    {
        if (seal.Ledger is not { } then)
            return; // made before there was a ledger
        var now = SealedLedger.Empty;
        await foreach (var hash in HashesAsync(db, 0).WithCancellation(ct))
        {
            if (now.Lines == then.Lines)
                break;
            now = now.With(hash);
        }
        if (now.Lines < then.Lines)
            tell(
                new(TroubleKind.Missing, null, null, $"The seal covers {then.Lines} lines of the ledger of parts; {now.Lines} are there.")
            );
        else if (now.Hash != then.Hash)
            tell(
                new(
                    TroubleKind.NotAsSealed,
                    null,
                    null,
                    $"The ledger of parts is not what was sealed on {seal.SealedAt.UtcDateTime:yyyy-MM-dd HH:mm} UTC: a line among its first "
                        + $"{then.Lines} was written anew since."
                )
            );
    }

    /// <summary>Every hand-over of a ticket is in the ledger, and nothing else is there in its name.</summary>
    public static async Task AgainstTicketsAsync(
        NailcrowDb db,
        IReadOnlyCollection<TicketRecord> records,
        Action<Trouble> tell,
        CancellationToken ct
    )
    {
        var tickets = records.Select(r => (long?)r.Ticket.Number).ToList();
        var rows = await db.Ledger.AsNoTracking().Where(r => tickets.Contains(r.Ticket)).ToListAsync(ct);
        var said = rows.Select(r => r.Read()).OfType<Movement>().ToLookup(m => m.Ticket);
        var used = rows.Where(r => r.IsOfSupply).ToLookup(r => r.Ticket);
        foreach (var record in records)
        {
            SupplyCheck.AgainstTicket(record.Ticket, used[record.Ticket.Number], tell);
            var ofTicket = said[record.Ticket.Number].ToList();
            var there = ofTicket.Where(m => m.To is not null).Select(m => m.Id).Except(PartLine.UndoneIn(ofTicket)).ToHashSet();
            if (!there.SetEquals(record.Ticket.Custody.Own.Select(m => TicketMovements.IdOf(record.Ticket.Number, m))))
                tell(
                    new(
                        TroubleKind.ListsDiffer,
                        record.Ticket.Number,
                        null,
                        $"{TicketNumber.Text(record.Ticket.Number)}: the ledger of parts has other hand-overs than its journal."
                    )
                );
        }
    }

    /// <summary>The list of where parts are says what the ledger says.</summary>
    public static async Task PartsAsync(NailcrowDb db, Action<Trouble> tell, CancellationToken ct)
    {
        for (string? after = "", upTo; after is not null; after = upTo)
        {
            (upTo, var lines) = await SomeAsync(db, after, ct);
            var listed = await Listed(db, after, upTo).AsNoTracking().ToDictionaryAsync(p => p.Serial, Told, ct);
            foreach (var line in lines)
            {
                listed.Remove(line.Serial, out var row);
                if (PartRow.Of(line) is { } told ? row != Told(told) : row is not null)
                    tell(
                        new(
                            TroubleKind.ListsDiffer,
                            null,
                            null,
                            $"{line.Serial}: the ledger says otherwise than the list of parts; 'nailcrow admin rebuild-projections' tells it anew."
                        )
                    );
            }
            foreach (var serial in listed.Keys)
                tell(new(TroubleKind.Unexplained, null, null, $"{serial} is on the list of parts, and no line of the ledger tells of it."));
        }
    }

    /// <summary>The lines of the parts that come next after a serial.</summary>
    /// <returns>The lines, and the serial after which the next come; null where there are no more.</returns>
    public static async Task<(string? UpTo, IReadOnlyList<PartLine> Lines)> SomeAsync(NailcrowDb db, string after, CancellationToken ct)
    {
        // No serial has small letters, so all parts come before the first supply.
        var some = await WholeLines.SomeAsync(db, after, SupplyName.KeyBegins, InAPiece, ct);
        return some is [.., var last]
            ? (
                last.Serial,
                [
                    .. some.Select(one => PartLine.Of(one.Serial, one.Texts.Select(MovementText.Read).OfType<Movement>()))
                        .Where(l => l.Movements.Count > 0),
                ]
            )
            : (null, []);
    }

    /// <summary>Those on the list of parts after one serial, up to another or to the end.</summary>
    public static IQueryable<PartRow> Listed(NailcrowDb db, string after, string? upTo)
    {
        var rows = db.Parts.Where(p => string.Compare(p.Serial, after) > 0);
        return upTo is null ? rows : rows.Where(p => string.Compare(p.Serial, upTo) <= 0);
    }

    /// <summary>
    /// The same for whoever asks the database for nothing in between: lines are read while those before them are made out, which takes
    /// longer than reading.
    /// </summary>
    public static async IAsyncEnumerable<PartLine> LinesAheadAsync(
        NailcrowDb db,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken ct
    )
    {
        var read = Channel.CreateBounded<Task<List<PartLine>>>(Ahead);
        var reading = Task.Run(() => ReadAsync(db, read.Writer, ct), ct);
        await foreach (var some in read.Reader.ReadAllAsync(ct))
        foreach (var line in await some)
            yield return line;
        await reading;
    }

    private static async Task ReadAsync(NailcrowDb db, ChannelWriter<Task<List<PartLine>>> into, CancellationToken ct)
    {
        try
        {
            var some = new List<KeptBytes>(AtOnce);
            // Two columns of every row there is: what makes objects of rows takes longer than reading them.
            await using var asked = await Asking.RowsAsync(
                db,
                $"SELECT serial, text FROM ledger WHERE serial < '{SupplyName.KeyBegins}' ORDER BY serial, seq",
                ct
            );
            while (asked.Reader.Read())
            {
                var (serial, text) = (asked.Reader.GetString(0), asked.Reader.GetFieldValue<byte[]>(1));
                if (some.Count == 0 || some[^1].Serial != serial)
                {
                    ct.ThrowIfCancellationRequested();
                    if (some.Count == AtOnce)
                    {
                        await into.WriteAsync(Folded(some), ct);
                        some = new(AtOnce);
                    }
                    some.Add(new(serial, []));
                }
                some[^1].Texts.Add(text);
            }
            await into.WriteAsync(Folded(some), ct);
            into.Complete();
        }
        catch (Exception e)
        {
            into.Complete(e);
            throw;
        }
    }

    private static Task<List<PartLine>> Folded(List<KeptBytes> some) => Task.Run(() => some.ConvertAll(kept => kept.Line()));

    /// <summary>A part's line as it is kept, in UTF-8.</summary>
    private sealed record KeptBytes(string Serial, List<byte[]> Texts)
    {
        public PartLine Line() => PartLine.Of(Serial, [.. Texts.Select(text => MovementText.Read(text)).OfType<Movement>()]);
    }

    private static string Told(PartRow p) =>
        $"{p.Model}|{p.Bytes}|{p.Hours}|{p.HolderKind}|{p.Holder}|{p.Shelf}|{p.Asset}|{p.Since.UtcTicks}|{p.Ticket}|{p.ReservedFor}|"
        + $"{p.UnwipedFrom}|{p.Going}|{p.DueBy:O}|{p.Apart}";

    private static Trouble Of(TroubleKind kind, LedgerRow row, string what) => new(kind, row.Ticket, null, $"{row.Serial}: {what}.");
}
