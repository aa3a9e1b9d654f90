using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.People;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Returns.Supplies;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>How far a check has come.</summary>
/// <param name="What">entries, pictures or lists.</param>
public sealed record CheckProgress(string What, long Done, long Of);

/// <summary>What a check went over, beside the troubles that it told as it found them.</summary>
public sealed record Checked(long Tickets, long Entries, long Pictures, long Sealed, long Movements, long SecurityLines);

/// <summary>
/// Holds everything that is kept against itself: the chains, the numbers, the columns, the pictures, the guards, a seal; and
/// then whether this version can read it, and whether the lists say what it says.
/// </summary>
public sealed class JournalCheck(IDbContextFactory<NailcrowDb> dbs)
{
    private const int TellEvery = 10_000;
    private const int AtOnce = 500;
    private const int Ahead = 8;

    /// <param name="seal">What the record is held against; null for nothing but itself.</param>
    /// <param name="readToo">Also reads every entry and folds every ticket, which takes many times as long as the chains.</param>
    /// <param name="picturesAfter">Only pictures of entries after that position are read; those before were, when they came here.</param>
    public async Task<Checked> RunAsync(
        Seal? seal,
        bool readToo,
        Action<Trouble> tell,
        Action<CheckProgress> progress,
        CancellationToken ct,
        long picturesAfter = 0
    )
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        using var time = db.TakesAllTheTimeItNeeds();
        // As of one moment: what is written while this goes on is neither missing nor too much.
        await using var moment = await db.Product.BeginReadingAsync(db, ct);
        foreach (var guard in await JournalGuards.MissingAsync(db, ct))
            tell(
                new(
                    TroubleKind.Unguarded,
                    null,
                    null,
                    $"The database's guard '{guard}' was taken away or weakened; the next start puts it back."
                )
            );
        var (chains, pictures) = (new ChainWalk(), new PictureCheck(picturesAfter));
        var against = seal is null ? null : new SealCheck(seal);
        var positions = await ChainsAsync(db, chains, pictures, against, tell, progress, ct);
        against?.Finish(tell);
        var gone = chains.Gone + await EndsAsync(db, chains, tell, ct);
        if (positions > gone)
            tell(
                new(
                    TroubleKind.Missing,
                    null,
                    null,
                    $"{(positions == 1 ? "1 entry that was written is" : $"{positions} entries that were written are")} "
                        + "not there any more; "
                        + $"{(gone == 0 ? "no number tells on which ticket" : $"{gone} of them are named above")}."
                )
            );
        await pictures.HoldAsync(db, tell, progress, ct);
        var movements = await LedgerCheck.ChainsAsync(db, tell, progress, ct);
        var security = await SecurityLog.HoldAsync(db, tell, ct);
        if (seal is not null)
        {
            await LedgerCheck.AgainstSealAsync(db, seal, tell, ct);
            await SecurityLog.AgainstSealAsync(db, seal, tell, ct);
        }
        if (readToo)
        {
            await LedgerCheck.PartsAsync(db, tell, ct);
            await SupplyCheck.CountsAsync(db, tell, ct);
            await ListCheck.RunAsync(dbs, [.. chains.Heads.Keys], tell, progress, ct);
        }
        return new(chains.Heads.Count, chains.Entries, pictures.Looked, seal?.Entries ?? 0, movements, security);
    }

    /// <returns>How many positions are gone.</returns>
    private static async Task<long> ChainsAsync(
        NailcrowDb db,
        ChainWalk chains,
        PictureCheck pictures,
        SealCheck? seal,
        Action<Trouble> tell,
        Action<CheckProgress> progress,
        CancellationToken ct
    )
    {
        var most = await db.Journal.MaxAsync(r => (long?)r.Position, ct) ?? 0;
        // Reading and reckoning take as long as each other, so one does the one while another does the other.
        var read = Channel.CreateBounded<List<(long Position, StoredEntry Entry)>>(Ahead);
        var reading = Task.Run(() => ReadAsync(db, read.Writer, ct), ct);
        await foreach (var some in read.Reader.ReadAllAsync(ct))
        {
            foreach (var (position, entry) in some)
            {
                chains.Next(entry, tell);
                seal?.Next(entry, tell);
                if (PictureCheck.IsOf(entry.Kind))
                    pictures.Expect(position, entry);
            }
            if (chains.Entries % TellEvery < some.Count)
                progress(new("entries", chains.Entries, most));
        }
        await reading;
        return await db.Product.EverGivenAsync(db, "journal", ct) - chains.Entries;
    }

    private static async Task ReadAsync(NailcrowDb db, ChannelWriter<List<(long Position, StoredEntry Entry)>> into, CancellationToken ct)
    {
        try
        {
            var some = new List<(long Position, StoredEntry Entry)>(AtOnce);
            await foreach (var row in JournalRows.AfterAsync(db, 0, ct))
            {
                some.Add(row);
                if (some.Count < AtOnce)
                    continue;
                await into.WriteAsync(some, ct);
                some = new(AtOnce);
            }
            await into.WriteAsync(some, ct);
            into.Complete();
        }
        catch (Exception e)
        {
            into.Complete(e);
            throw;
        }
    }

    // No ticket has more; a list that says so was written by nobody of ours.
    private const long MostEntries = 100_000_000;

    /// <summary>
    /// Entries cut off the end leave a chain that holds; the lists remember how long it was, and numbers of tickets follow each
    /// other.
    /// </summary>
    /// <returns>How many entries are known to be gone.</returns>
    private static async Task<long> EndsAsync(NailcrowDb db, ChainWalk chains, Action<Trouble> tell, CancellationToken ct)
    {
        var gone = 0L;
        var lines = new HashSet<long>();
        await foreach (
            var line in db
                .TicketLines.AsNoTracking()
                .OrderBy(l => l.Number)
                .Select(l => new
                {
                    l.Number,
                    l.Head,
                    l.HeadHash,
                })
                .AsAsyncEnumerable()
                .WithCancellation(ct)
        )
        {
            lines.Add(line.Number);
            var (seq, hash) = chains.Heads.GetValueOrDefault(line.Number);
            if (End(line.Number, line.Head, line.HeadHash, seq, hash) is { } trouble)
                tell(trouble);
            gone += Math.Clamp(line.Head - seq, 0, MostEntries);
        }
        foreach (var (first, last) in NumbersGone(chains.Heads.Keys.Union(lines)))
            tell(
                new(
                    TroubleKind.Missing,
                    first,
                    null,
                    first == last
                        ? $"{TicketNumber.Text(first)} is gone whole: neither entries nor lists tell of it, and the numbers before and after do."
                        : $"{TicketNumber.Text(first)} to {TicketNumber.Text(last)} are gone whole: neither entries nor lists "
                            + "tell of them, and the numbers before and after do."
                )
            );
        return gone;
    }

    /// <summary>What is wrong with how one ticket ends; null where its list was told from its last entry.</summary>
    private static Trouble? End(long ticket, long head, string? headHash, long seq, string? hash) =>
        seq == 0 ? new(TroubleKind.Missing, ticket, null, $"{TicketNumber.Text(ticket)} has no entries left; {head} were written.")
        : head > seq ? new(TroubleKind.Missing, ticket, seq + 1, $"{TicketNumber.Text(ticket)} ends at entry {seq}; {head} were written.")
        : head == seq && headHash != hash
            ? new(
                TroubleKind.Changed,
                ticket,
                seq,
                $"{TicketNumber.Text(ticket)} entry {seq} is not the one that the lists were told from."
            )
        : null;

    /// <summary>The gaps, each by its first and last number: one number that is wrong may leave a gap as wide as all numbers.</summary>
    private static IEnumerable<(long First, long Last)> NumbersGone(IEnumerable<long> there)
    {
        var numbers = there.Order().ToList();
        return numbers.Zip(numbers.Skip(1)).Where(n => n.Second - 1 > n.First).Select(n => (n.First + 1, n.Second - 1));
    }
}
