using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.People.SigningIn;
using Nailcrow.Store.Products;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store.People;

/// <summary>Who did something, and from where.</summary>
/// <param name="Address">As an IP address; null where it was done on the machine itself.</param>
public sealed record Doer(string Name, string? Address);

/// <summary>Who came in, and who changed what others may do: one chain, append-only like the journal.</summary>
public sealed class SecurityLog(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    public async Task WriteAsync(Doer by, SecurityEvent what, string? about, string? detail, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        await AddAsync(db, by, what, about, detail, time.GetUtcNow(), ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>Adds a line within the transaction of what it tells of.</summary>
    internal static async Task AddAsync(
        NailcrowDb db,
        Doer by,
        SecurityEvent what,
        string? about,
        string? detail,
        DateTimeOffset now,
        CancellationToken ct
    )
    {
        // To the millisecond, as times are kept: the column says what the text says.
        var at = DateTimeOffset.FromUnixTimeMilliseconds(now.ToUnixTimeMilliseconds());
        var line = new SecurityLine(0, at, by.Name, what, about, by.Address, detail);
        var text = SecurityText.Of(line);
        var last = await db.SecurityLines.AsNoTracking().OrderByDescending(r => r.Seq).Select(r => r.Hash).FirstOrDefaultAsync(ct);
        db.SecurityLines.Add(
            new()
            {
                At = line.At,
                By = line.By,
                Kind = Words.Of(what),
                Text = text,
                Hash = HashChain.Next(last ?? HashChain.Start, text),
            }
        );
        await SignInLetters.AddAsync(db, line, now, ct);
        await db.SaveChangesAsync(ct);
        Measures.Security.Add(1, Measures.Of("what", Words.Of(what)));
    }

    /// <summary>What changed of how somebody comes in, newest first.</summary>
    public async Task<IReadOnlyList<SecurityLine>> NewsOfAsync(string name, int limit, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        // As it stands in the text, where no quote within a value is without its stroke; a line about whoever did it names nobody.
        const string AboutAny = "\"about\":";
        var (kinds, about, keyMade) = (
            SignInNews.Kinds.Select(k => Words.Of(k)).ToList(),
            $"{AboutAny}\"{name}\"",
            Words.Of(SecurityEvent.KeyMade)
        );
        var rows = await db
            .SecurityLines.AsNoTracking()
            .Where(r => kinds.Contains(r.Kind))
            .Where(r => r.Kind == keyMade ? r.By == name : r.Text.Contains(about) || (r.By == name && !r.Text.Contains(AboutAny)))
            .OrderByDescending(r => r.Seq)
            .Take(limit)
            .ToListAsync(ct);
        return [.. rows.Select(r => SecurityText.Read(r.Seq, r.Text)).OfType<SecurityLine>()];
    }

    /// <summary>Newest first.</summary>
    /// <param name="before">Only lines with a smaller number.</param>
    /// <param name="by">Only what this name did; null for all.</param>
    /// <param name="what">Only of this kind; null for all.</param>
    public async Task<IReadOnlyList<SecurityLine>> PageAsync(long? before, string? by, SecurityEvent? what, int limit, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var lines = db.SecurityLines.AsNoTracking().Where(r => r.Seq < (before ?? long.MaxValue));
        if (by is not null)
            lines = lines.Where(r => r.By == by);
        if (what is { } kind)
        {
            var word = Words.Of(kind);
            lines = lines.Where(r => r.Kind == word);
        }
        var rows = await lines.OrderByDescending(r => r.Seq).Take(limit).ToListAsync(ct);
        return [.. rows.Select(r => SecurityText.Read(r.Seq, r.Text)).OfType<SecurityLine>()];
    }

    /// <summary>Computes the chain again from the stored text.</summary>
    /// <returns>The number of its last line.</returns>
    internal static async Task<long> HoldAsync(NailcrowDb db, Action<Trouble> tell, CancellationToken ct)
    {
        var (seq, hash) = (0L, HashChain.Start);
        await foreach (var row in db.SecurityLines.AsNoTracking().OrderBy(r => r.Seq).AsAsyncEnumerable().WithCancellation(ct))
        {
            if (row.Seq != seq + 1)
                tell(Of(TroubleKind.Missing, $"The lines of the security log from {seq + 1} to {row.Seq - 1} are missing."));
            else if (HashChain.Next(hash, row.Text) != row.Hash)
                tell(Of(TroubleKind.Changed, $"Line {row.Seq} of the security log is not what was written."));
            if (SecurityText.Read(row.Seq, row.Text) is not { } said)
                tell(Of(TroubleKind.CannotBeRead, $"Line {row.Seq} of the security log cannot be read by this version."));
            else if ((said.By, Words.Of(said.What), said.At) != (row.By, row.Kind, row.At))
                tell(Of(TroubleKind.Changed, $"Line {row.Seq} of the security log is listed as another than it says."));
            (seq, hash) = (row.Seq, row.Hash);
        }
        if (await db.Product.EverGivenAsync(db, "security_line", ct) is var given && given > seq)
            tell(Of(TroubleKind.Missing, $"{given - seq} lines at the end of the security log that were written are not there any more."));
        return seq;
    }

    /// <summary>How far it has come.</summary>
    internal static async Task<SealedLog> SealedAsync(NailcrowDb db, CancellationToken ct)
    {
        var last = await db
            .SecurityLines.AsNoTracking()
            .OrderByDescending(r => r.Seq)
            .Select(r => new { r.Seq, r.Hash })
            .FirstOrDefaultAsync(ct);
        return last is null ? SealedLog.Empty : new(last.Seq, last.Hash);
    }

    /// <summary>The line that was the last when it was sealed is there as it was: whoever wrote one anew wrote the hashes after it anew too.</summary>
    internal static async Task AgainstSealAsync(NailcrowDb db, Seal seal, Action<Trouble> tell, CancellationToken ct)
    {
        if (seal.Security is not { Lines: > 0 } then)
            return; // made before it was sealed
        var hash = await db.SecurityLines.AsNoTracking().Where(r => r.Seq == then.Lines).Select(r => r.Hash).FirstOrDefaultAsync(ct);
        if (hash is null)
            tell(Of(TroubleKind.Missing, $"The seal covers {then.Lines} lines of the security log; they are not all there any more."));
        else if (hash != then.Hash)
            tell(
                Of(
                    TroubleKind.NotAsSealed,
                    $"The security log is not what was sealed on {seal.SealedAt.UtcDateTime:yyyy-MM-dd HH:mm} UTC: a line among its first "
                        + $"{then.Lines} was written anew since."
                )
            );
    }

    private static Trouble Of(TroubleKind kind, string sentence) => new(kind, null, null, sentence);
}
