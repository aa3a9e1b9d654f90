using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Nailcrow.Core.People.Log;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Intake;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.People;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;

namespace Nailcrow.Store;

/// <summary>All secrets that are kept under the service's keys. Whoever keeps one more has it here as well.</summary>
public sealed class KeptSecrets(IDbContextFactory<NailcrowDb> dbs, ISecretKeeper keeper)
{
    /// <summary>One that is kept.</summary>
    /// <param name="Before">What stands before it in the same column.</param>
    private sealed record Kept(PropertyEntry Column, string Before, string Whose)
    {
        public string Shut => ((string)Column.CurrentValue!)[Before.Length..]; // a text, or it would not be among them
    }

    /// <param name="Kept">How many are under the newest key now.</param>
    /// <param name="Lost">How many could not be opened; they are as they were.</param>
    public sealed record Renewed(int Kept, int Lost);

    /// <summary>Nodes that work on a server's record now, and have keys in hand.</summary>
    public async Task<IReadOnlyList<string>> AtWorkAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return db.Database.IsNpgsql() ? await db.Database.SqlQueryRaw<string>(NodesAtWork.Names).ToListAsync(ct) : [];
    }

    /// <summary>Whose cannot be opened with the keys that are here.</summary>
    public async Task<IReadOnlyList<string>> LostAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return [.. (await AllAsync(db, ct)).Where(k => keeper.Open(k.Shut) is null).Select(k => k.Whose)];
    }

    /// <summary>Keeps each anew, under the newest key: all that can be opened, or none.</summary>
    public async Task<Renewed> KeepAnewAsync(Doer by, DateTimeOffset now, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await using var transaction = await db.Product.BeginAsync(db, WritersTurn.House, ct);
        var (all, kept) = (await AllAsync(db, ct), 0);
        foreach (var one in all)
            if (keeper.Open(one.Shut) is { } clear)
            {
                one.Column.CurrentValue = one.Before + keeper.Protect(clear);
                kept++;
            }
        await db.SaveChangesAsync(ct);
        var told = $"secrets kept anew: {kept}; not opened: {all.Count - kept}";
        await SecurityLog.AddAsync(db, by, SecurityEvent.KeysRenewed, null, told, now, ct);
        await transaction.CommitAsync(ct);
        return new(kept, all.Count - kept);
    }

    private static async Task<List<Kept>> AllAsync(NailcrowDb db, CancellationToken ct)
    {
        var all = new List<Kept>();
        foreach (var row in await db.Set<MachineAccessRow>().ToListAsync(ct))
            Add(row, nameof(row.Secret), $"the sign-in of {row.Asset}");
        foreach (var row in await db.Set<EventSenderRow>().ToListAsync(ct))
            Add(row, nameof(row.Secret), $"what {row.Name} signs events with", EventSenders.Protected);
        foreach (var row in await db.Set<PartnerRow>().ToListAsync(ct))
            Add(row, nameof(row.Secret), $"what {row.Name} signs with");
        foreach (var row in await db.Set<SecondFactorRow>().ToListAsync(ct))
        {
            Add(row, nameof(row.CodeKey), $"the one-time codes of {row.Person}");
            Add(row, nameof(row.OfferedKey), $"the one-time codes that {row.Person} was shown");
        }
        if (db.Database.IsNpgsql()) // beside a file it is a file, under its folder's rights
            foreach (var row in await db.Set<SharedKeyRow>().Where(r => r.Kind == SealKeyOfNodes.Kind).ToListAsync(ct))
                Add(row, nameof(row.Text), "the key for seals");
        return all;

        void Add<TRow>(TRow row, string column, string whose, string before = "")
            where TRow : class
        {
            var kept = db.Entry(row).Property(column);
            if (kept.CurrentValue is string { Length: > 0 } there && there.StartsWith(before, StringComparison.Ordinal))
                all.Add(new(kept, before, whose));
        }
    }
}
