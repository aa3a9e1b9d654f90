using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Returns;
using Nailcrow.Store.Returns.Outside;

namespace Nailcrow.Store.People.SigningIn;

/// <summary>One piece of news that is due to go out.</summary>
/// <param name="Address">From where it was done, as an IP address; null where nobody knows.</param>
public sealed record SignInLetter(Guid Id, string To, string Says, string? Address, DateTimeOffset At, int Tries);

/// <summary>
/// News of how people come in, on its way to them by mail: written with the line of the security log that it tells of, and claimed like
/// an errand, so that a node that died holds nothing up.
/// </summary>
public sealed class SignInLetters(IDbContextFactory<NailcrowDb> dbs)
{
    internal const string Nowhere = "nowhere";

    /// <summary>The oldest that is due, claimed until <paramref name="until"/>; null where none is.</summary>
    public async Task<SignInLetter?> ClaimAsync(DateTimeOffset now, DateTimeOffset until, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        while (true)
        {
            if (
                await db.SignInLetters.AsNoTracking().Where(r => r.DueAt <= now).OrderBy(r => r.DueAt).FirstOrDefaultAsync(ct)
                is not { } row
            )
                return null;
            var mine = await db
                .SignInLetters.Where(r => r.Id == row.Id && r.DueAt == row.DueAt)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.DueAt, until).SetProperty(r => r.Tries, row.Tries + 1), ct);
            if (mine == 1)
                return new(row.Id, row.To, row.Says, row.Address, row.At, row.Tries + 1);
        }
    }

    /// <summary>It went, or never will.</summary>
    public async Task EndAsync(Guid id, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db.SignInLetters.Where(r => r.Id == id).ExecuteDeleteAsync(ct);
    }

    public async Task LaterAsync(Guid id, DateTimeOffset at, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db.SignInLetters.Where(r => r.Id == id).ExecuteUpdateAsync(set => set.SetProperty(r => r.DueAt, at), ct);
    }

    /// <summary>Within the transaction of what it tells of. Nothing is kept where no mail server is known: it stands on their page all the same.</summary>
    internal static async Task AddAsync(NailcrowDb db, SecurityLine line, DateTimeOffset now, CancellationToken ct)
    {
        if (SignInNews.Told(line) is not { } says || !await db.Partners.AnyAsync(p => p.Kind == PartnerKind.Mail, ct))
            return;
        foreach (var to in await ToAsync(db, line, ct))
            db.SignInLetters.Add(
                new()
                {
                    Id = Guid.CreateVersion7(now),
                    To = to,
                    Says = says,
                    Address = line.Address,
                    At = line.At,
                    DueAt = now,
                }
            );
    }

    /// <summary>Where an address was changed, the one before is told as well: whoever changed it reads the new one.</summary>
    private static async Task<IEnumerable<string>> ToAsync(NailcrowDb db, SecurityLine line, CancellationToken ct)
    {
        if (line is { What: SecurityEvent.MailChanged, Detail: { } detail })
            return detail.Split(" to ").Where(address => address != Nowhere);
        var whose = SignInNews.Whose(line);
        var address = await db.Users.AsNoTracking().Where(p => p.UserName == whose).Select(p => p.Email).FirstOrDefaultAsync(ct);
        return address is null ? [] : [address];
    }
}
