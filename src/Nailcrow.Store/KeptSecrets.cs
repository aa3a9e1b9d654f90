using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People.Log;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Intake;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.People;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store;

/// <summary>All secrets that are kept under the service's keys. Whoever keeps one more has it here as well.</summary>
public sealed class KeptSecrets(IDbContextFactory<NailcrowDb> dbs, ISecretKeeper keeper)
{
    /// <param name="Kept">How many are under the newest key now.</param>
    /// <param name="Lost">Whose could not be opened, and have to be given anew; they are as they were.</param>
    public sealed record Renewed(int Kept, IReadOnlyList<string> Lost);

    /// <summary>Nodes that work on a server's record now, and have keys in hand.</summary>
    public async Task<IReadOnlyList<string>> AtWorkAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return db.Database.IsNpgsql()
            ? await db
                .Database.SqlQuery<string>(
                    $"SELECT name AS \"Value\" FROM node WHERE seen_at > clock_timestamp() - interval '10 seconds' ORDER BY name"
                )
                .ToListAsync(ct)
            : [];
    }

    /// <summary>Keeps each anew, under the newest key: all of them, or none.</summary>
    public async Task<Renewed> KeepAnewAsync(Doer by, DateTimeOffset now, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        var (kept, lost) = (0, new List<string>());
        foreach (var row in await db.Set<MachineAccessRow>().Where(r => r.Secret != null).ToListAsync(ct))
            Again(row, nameof(row.Secret), $"the sign-in of {row.Asset}");
        foreach (var row in await db.Set<EventSenderRow>().ToListAsync(ct))
            Again(row, nameof(row.Secret), $"what {row.Name} signs events with", EventSenders.Protected);
        foreach (var row in await db.Set<PartnerRow>().ToListAsync(ct))
            Again(row, nameof(row.Secret), $"what {row.Name} signs with");
        foreach (var row in await db.Set<SecondFactorRow>().ToListAsync(ct))
        {
            Again(row, nameof(row.CodeKey), $"the one-time codes of {row.Person}");
            Again(row, nameof(row.OfferedKey), $"the one-time codes that {row.Person} was shown");
        }
        if (db.Database.IsNpgsql()) // beside a file it is a file, under its folder's rights
            foreach (var row in await db.Set<SharedKeyRow>().Where(r => r.Kind == SealKeyOfNodes.Kind).ToListAsync(ct))
                Again(row, nameof(row.Text), "the key for seals");
        await db.SaveChangesAsync(ct);
        await SecurityLog.AddAsync(
            db,
            by,
            SecurityEvent.KeysRenewed,
            null,
            $"secrets kept anew: {kept}; not opened: {lost.Count}",
            now,
            ct
        );
        await transaction.CommitAsync(ct);
        return new(kept, lost);

        void Again<TRow>(TRow row, string column, string whose, string before = "")
            where TRow : class
        {
            var property = db.Entry(row).Property<string?>(column);
            if (property.CurrentValue is not { Length: > 0 } there || !there.StartsWith(before, StringComparison.Ordinal))
                return;
            if (keeper.Open(there[before.Length..]) is { } clear)
            {
                property.CurrentValue = before + keeper.Protect(clear);
                kept++;
            }
            else
                lost.Add(whose);
        }
    }
}
