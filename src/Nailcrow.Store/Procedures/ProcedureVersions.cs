using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Procedures;

/// <summary>A published version of a procedure.</summary>
/// <param name="Files">The texts of the procedure's file and of all skeletons and fragments beside it, by file name.</param>
/// <param name="States">Situations that were looked at to prove it.</param>
/// <param name="Earlier">Each time it was withdrawn and brought back, by whom and why; null where it never was.</param>
/// <param name="ProvedUnder">Under which rules: what was proved under earlier ones is proved anew before it is used.</param>
public sealed record PublishedProcedure(
    string Procedure,
    string Version,
    string Title,
    string File,
    IReadOnlyDictionary<string, string> Files,
    int States,
    int ProvedUnder,
    DateTimeOffset PublishedAt,
    string PublishedBy,
    DateTimeOffset? WithdrawnAt = null,
    string? WithdrawnBy = null,
    string? WithdrawnBecause = null,
    string? Earlier = null
);

/// <summary>Every version of every procedure that was ever published. Nothing is deleted: a running ticket keeps what it was given.</summary>
public sealed class ProcedureVersions(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    /// <summary>All versions, the newest of each procedure first.</summary>
    public async Task<IReadOnlyList<PublishedProcedure>> ListAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var rows = await db.ProcedureVersions.AsNoTracking().ToListAsync(ct);
        return [.. rows.OrderBy(r => r.Procedure, StringComparer.Ordinal).ThenByDescending(r => r.PublishedAt).Select(Of)];
    }

    /// <summary>How many versions there are, how many are withdrawn, and when the last one was: where none of it moved, nothing changed.</summary>
    public async Task<LibraryStamp> StampAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return new(
            await db.ProcedureVersions.CountAsync(ct),
            await db.ProcedureVersions.CountAsync(v => v.WithdrawnAt != null, ct),
            await db.ProcedureVersions.MaxAsync(v => v.WithdrawnAt, ct)
        );
    }

    /// <summary>Keeps a version; the same one again changes nothing.</summary>
    /// <returns>As it is kept: of one that was there already, by whoever published it then, and withdrawn where it is.</returns>
    public async Task<PublishedProcedure> PublishAsync(PublishedProcedure published, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if (await db.ProcedureVersions.FindAsync([published.Procedure, published.Version], ct) is { } known)
            return Of(known);
        db.ProcedureVersions.Add(
            new()
            {
                Procedure = published.Procedure,
                Version = published.Version,
                Title = published.Title,
                File = published.File,
                Files = JsonSerializer.Serialize(published.Files, FilesJson.Default.IReadOnlyDictionaryStringString),
                States = published.States,
                ProvedUnder = published.ProvedUnder,
                PublishedAt = published.PublishedAt,
                PublishedBy = published.PublishedBy,
            }
        );
        try
        {
            await db.SaveChangesAsync(ct);
            return published;
        }
        catch (DbUpdateException)
        {
            // Another node read the same file at the same moment; what it kept stands.
            await using var again = await dbs.CreateDbContextAsync(ct);
            if (await again.ProcedureVersions.FindAsync([published.Procedure, published.Version], ct) is { } theirs)
                return Of(theirs);
            throw;
        }
    }

    /// <summary>It was proved anew, under the rules of now.</summary>
    public async Task ProvedAnewAsync(PublishedProcedure published, int states, int under, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db
            .ProcedureVersions.Where(v => v.Procedure == published.Procedure && v.Version == published.Version)
            .ExecuteUpdateAsync(v => v.SetProperty(r => r.States, states).SetProperty(r => r.ProvedUnder, under), ct);
    }

    /// <summary>False where there is no such version, or it was withdrawn before.</summary>
    public async Task<bool> WithdrawAsync(string procedure, string version, string by, string because, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if (await db.ProcedureVersions.FindAsync([procedure, version], ct) is not { WithdrawnAt: null } row)
            return false;
        (row.WithdrawnAt, row.WithdrawnBy, row.WithdrawnBecause) = (time.GetUtcNow(), by, because);
        await db.SaveChangesAsync(ct);
        return true;
    }

    /// <summary>False where there is no such version, or it is not withdrawn. That it was, and why, stays.</summary>
    public async Task<bool> BringBackAsync(string procedure, string version, string by, string because, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if (await db.ProcedureVersions.FindAsync([procedure, version], ct) is not { WithdrawnAt: not null } row)
            return false;
        row.Earlier = $"{row.Earlier} Withdrawn by {row.WithdrawnBy}: {row.WithdrawnBecause} Brought back by {by}: {because}".TrimStart();
        (row.WithdrawnAt, row.WithdrawnBy, row.WithdrawnBecause) = (null, null, null);
        await db.SaveChangesAsync(ct);
        return true;
    }

    private static PublishedProcedure Of(ProcedureVersionRow row) =>
        new(
            row.Procedure,
            row.Version,
            row.Title,
            row.File,
            JsonSerializer.Deserialize(row.Files, FilesJson.Default.IReadOnlyDictionaryStringString)
                ?? throw new InvalidDataException($"Procedure '{row.Procedure}' {row.Version} has no files."),
            row.States,
            row.ProvedUnder,
            row.PublishedAt,
            row.PublishedBy,
            row.WithdrawnAt,
            row.WithdrawnBy,
            row.WithdrawnBecause,
            row.Earlier
        );
}

/// <summary>What tells one state of the library from another.</summary>
public readonly record struct LibraryStamp(int Published, int Withdrawn, DateTimeOffset? LastWithdrawn);

[JsonSerializable(typeof(IReadOnlyDictionary<string, string>))]
internal sealed partial class FilesJson : JsonSerializerContext;
