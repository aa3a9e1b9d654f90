using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.People;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns.Ledger;

namespace Nailcrow.Store.Tickets.Journal.Sealing;

/// <summary>Where seals and their key are kept, beside the database.</summary>
/// <param name="Folder">Each seal as a file of its own, to be copied elsewhere.</param>
public sealed record SealPlaces(string Folder, string KeyFolder);

/// <summary>A seal as it is kept.</summary>
public sealed record KeptSeal(long Number, long Entries, string Text);

/// <summary>Makes seals, and proofs of one ticket against the newest.</summary>
public sealed class Seals : IDisposable
{
    private readonly IDbContextFactory<NailcrowDb> _dbs;
    private readonly SealPlaces _places;
    private readonly TimeProvider _time;
    private readonly SemaphoreSlim _one = new(1, 1);
    private readonly Lock _first = new();
    private readonly SealKeyPlace _keyPlace;
    private SealKey? _key;

    internal Seals(IDbContextFactory<NailcrowDb> dbs, SealPlaces places, SealKeyPlace keyPlace, TimeProvider time) =>
        (_dbs, _places, _time, _keyPlace) = (dbs, places, time, keyPlace);

    /// <summary>Asked again where it could not be had: a database that is away comes back.</summary>
    private SealKey Key
    {
        get
        {
            lock (_first)
                return _key ??= _keyPlace.Key();
        }
    }

    public string Fingerprint => Key.Fingerprint;

    public string FileOf(long number) => Path.Combine(_places.Folder, $"seal-{number:000000}.txt");

    /// <summary>A seal over everything written until now. Where nothing was written since the last, that one.</summary>
    public async Task<KeptSeal> SealAsync(CancellationToken ct)
    {
        await _one.WaitAsync(ct);
        try
        {
            await using var db = await _dbs.CreateDbContextAsync(ct);
            using var time = db.TakesAllTheTimeItNeeds();
            await using var turn = await db.Product.TurnAsync(db, WritersTurn.Seals, ct);
            var last = await db.Seals.AsNoTracking().OrderByDescending(s => s.Number).FirstOrDefaultAsync(ct);
            var before = last is null ? null : Before(last.Text);
            var draft = new SealDraft(before, last?.BlockPosition ?? 0);
            await foreach (var (position, ticket, seq, hash) in JournalRows.HashesAfterAsync(db, last?.BlockPosition ?? 0, ct))
                draft.Add(position, ticket, seq, hash);
            var parts = await LedgerAsync(db, before?.Ledger ?? SealedLedger.Empty, ct);
            var security = await SecurityLog.SealedAsync(db, ct);
            if (last is not null && draft.Entries == last.Entries && parts == before?.Ledger && security == before?.Security)
                return Put(last);
            var hashBefore = last is null ? HashChain.Start : Seal.HashOf(last.Text);
            var seal = draft.Finish((last?.Number ?? 0) + 1, _time.GetUtcNow(), hashBefore, parts, security);
            var row = new SealRow
            {
                Number = seal.Number,
                Entries = seal.Entries,
                Position = draft.Position,
                BlockPosition = draft.BlockPosition,
                SealedAt = seal.SealedAt,
                Text = seal.Signed(Key),
            };
            db.Seals.Add(row);
            await db.SaveChangesAsync(ct);
            return Put(row);
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>The ledger of parts as far as it has come, going on from where it was sealed.</summary>
    private static async Task<SealedLedger> LedgerAsync(NailcrowDb db, SealedLedger parts, CancellationToken ct)
    {
        await foreach (var hash in LedgerCheck.HashesAsync(db, parts.Lines).WithCancellation(ct))
            parts = parts.With(hash);
        return parts;
    }

    /// <summary>The newest seal's text; null where none was made yet.</summary>
    public async Task<string?> NewestAsync(CancellationToken ct)
    {
        await using var db = await _dbs.CreateDbContextAsync(ct);
        return await db.Seals.OrderByDescending(s => s.Number).Select(s => s.Text).FirstOrDefaultAsync(ct);
    }

    /// <summary>A ticket's entries, as far as the newest seal covers them, with the way from the last of them to its root.</summary>
    public async Task<Parsed<TicketProof>> ProveAsync(long ticket, CancellationToken ct)
    {
        await using var db = await _dbs.CreateDbContextAsync(ct);
        using var time = db.TakesAllTheTimeItNeeds();
        if (await db.Seals.AsNoTracking().OrderByDescending(s => s.Number).FirstOrDefaultAsync(ct) is not { } newest)
            return new Parsed<TicketProof>.Refused(
                "Nothing has been sealed yet; 'nailcrow admin seal' makes a seal now, and there is one every day."
            );
        var rows = await db
            .Journal.AsNoTracking()
            .Where(r => r.Ticket == ticket && r.Position <= newest.Position)
            .OrderBy(r => r.Seq)
            .ToListAsync(ct);
        if (rows is not [.., var last])
            return new Parsed<TicketProof>.Refused(
                $"The newest seal is of {newest.SealedAt.UtcDateTime:yyyy-MM-dd HH:mm} UTC, and nothing had been "
                    + "written on this ticket then; 'nailcrow admin seal' makes one now."
            );
        var leaf = await db.Journal.LongCountAsync(r => r.Position < last.Position, ct);
        // The tree's hashes are asked for in order, by a walk that cannot wait: the rows are read from the database beneath it.
        var rest = db
            .Journal.AsNoTracking()
            .Where(r => r.Position <= newest.Position)
            .OrderBy(r => r.Position)
            .Select(r => r.Hash)
            .AsEnumerable()
            .GetEnumerator();
        using (rest)
        {
            var path = MerkleTree.Path(
                leaf,
                newest.Entries,
                () =>
                    rest.MoveNext()
                        ? MerkleTree.Leaf(rest.Current)
                        : throw new InvalidDataException("Entries that were sealed are missing; 'nailcrow admin verify' says which.")
            );
            return new Parsed<TicketProof>.Ok(
                new(
                    TicketProof.Form,
                    Core.Tickets.TicketNumber.Text(ticket),
                    [.. rows.Select(r => new ProvedEntry(r.Text, r.Hash))],
                    leaf,
                    [.. path.Select(Convert.ToHexStringLower)],
                    newest.Text
                )
            );
        }
    }

    public void Dispose()
    {
        _one.Dispose();
        _key?.Dispose();
    }

    /// <summary>Reads a seal, whoever signed it, and checks its own signature.</summary>
    public Parsed<ReadSeal> Read(string text) => Seal.Parse(text, Key);

    private Seal Before(string text) =>
        Read(text).Is(out var read, out var reason)
            ? read.Seal
            : throw new InvalidDataException($"The last seal in the database cannot be gone on from: {reason}");

    /// <summary>Every seal is a file as well; one that is missing is put back.</summary>
    private KeptSeal Put(SealRow row)
    {
        OwnFiles.Folder(_places.Folder);
        if (!File.Exists(FileOf(row.Number)))
            OwnFiles.Write(FileOf(row.Number), row.Text);
        return new(row.Number, row.Entries, row.Text);
    }
}
