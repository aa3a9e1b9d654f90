using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Store.Intake;

/// <summary>How what machines say is understood: the rules, and which machine a sender is.</summary>
public sealed class IntakeRules(IDbContextFactory<NailcrowDb> dbs)
{
    /// <summary>All intake rules, in order of id.</summary>
    public async Task<IReadOnlyList<IntakeRule>> RulesAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return
        [
            .. (await db.IntakeRules.AsNoTracking().OrderBy(r => r.Id).ToListAsync(ct)).Select(r =>
                StoredJson.Parse(r.Body, JournalJson.Default.IntakeRule)
            ),
        ];
    }

    /// <summary>The appliances that these senders are: by the name they send as, or the host of their management address.</summary>
    public async Task<IReadOnlyDictionary<string, string>> SendersAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var known = await db
            .Appliances.AsNoTracking()
            .Where(a => a.SendsAs != null || a.Address != null)
            .Select(a => new
            {
                a.Asset,
                a.SendsAs,
                a.Address,
            })
            .ToListAsync(ct);
        var senders = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        foreach (var one in known.Where(k => Uri.TryCreate(k.Address, UriKind.Absolute, out _)))
            senders.TryAdd(new Uri(one.Address ?? "").Host, one.Asset);
        foreach (var one in known.Where(k => k.SendsAs is not null))
            senders[one.SendsAs ?? ""] = one.Asset; // a name that was given counts before one that was guessed
        return senders;
    }
}
