using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.Returns.Outside;

/// <summary>An errand as it stands.</summary>
/// <param name="Says">What was said last: by the partner, or why they were not reached.</param>
public sealed record ErrandNow(
    Errand Errand,
    long Ticket,
    DateTimeOffset WrittenAt,
    ErrandState State,
    DateTimeOffset? DueAt,
    int Tries,
    string? Says,
    string? Label
);

/// <summary>
/// What has to leave Nailcrow. Rows are written by the journal with their entry; here they are claimed, tried and ended. Whoever
/// claims one has it for a while, and somebody else takes it up after that: a node that died holds nothing up.
/// </summary>
public sealed class Outbox(IDbContextFactory<NailcrowDb> dbs)
{
    /// <summary>To whom something is due to be said.</summary>
    /// <param name="but">Partners who are being asked just now.</param>
    public async Task<IReadOnlyList<string>> DueAsync(DateTimeOffset now, IReadOnlyCollection<string> but, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db
            .Outbox.Where(r => r.State == ErrandState.Waiting && r.DueAt <= now && !but.Contains(r.Partner))
            .Select(r => r.Partner)
            .Distinct()
            .ToListAsync(ct);
    }

    /// <summary>What is due to be said to a partner, the oldest first, claimed until <paramref name="until"/>; null where nothing is.</summary>
    public async Task<ErrandNow?> ClaimAsync(string partner, DateTimeOffset now, DateTimeOffset until, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        while (true)
        {
            var row = await db
                .Outbox.AsNoTracking()
                .Where(r => r.State == ErrandState.Waiting && r.DueAt <= now && r.Partner == partner)
                .OrderBy(r => r.DueAt)
                .ThenBy(r => r.Id)
                .FirstOrDefaultAsync(ct);
            if (row is null)
                return null;
            var mine = await db
                .Outbox.Where(r => r.Id == row.Id && r.State == ErrandState.Waiting && r.DueAt == row.DueAt)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.DueAt, until).SetProperty(r => r.Tries, row.Tries + 1), ct);
            if (mine == 0)
                continue; // another node was faster
            row.Tries++;
            return Read(row);
        }
    }

    /// <summary>When something is due next; null where nothing waits.</summary>
    public async Task<DateTimeOffset?> NextAsync(IReadOnlyCollection<string> but, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db
            .Outbox.Where(r => r.State == ErrandState.Waiting && !but.Contains(r.Partner))
            .OrderBy(r => r.DueAt)
            .Select(r => r.DueAt)
            .FirstOrDefaultAsync(ct);
    }

    /// <summary>It is over, one way or the other.</summary>
    /// <param name="label">The carrier's number, where it has one now; its events are asked for from then on.</param>
    public async Task EndAsync(
        Guid id,
        ErrandState how,
        string? says,
        CancellationToken ct,
        string? label = null,
        DateTimeOffset? followAt = null
    )
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db
            .Outbox.Where(r => r.Id == id)
            .ExecuteUpdateAsync(
                set =>
                    set.SetProperty(r => r.State, how)
                        .SetProperty(r => r.DueAt, (DateTimeOffset?)null)
                        .SetProperty(r => r.Says, says)
                        .SetProperty(r => r.Label, label)
                        .SetProperty(r => r.FollowAt, followAt),
                ct
            );
    }

    /// <summary>It did not work out now.</summary>
    /// <param name="tries">How often it was tried so far; 0 where they only ask for time.</param>
    public async Task LaterAsync(Guid id, DateTimeOffset at, string says, int tries, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db
            .Outbox.Where(r => r.Id == id && r.State == ErrandState.Waiting)
            .ExecuteUpdateAsync(
                set => set.SetProperty(r => r.DueAt, at).SetProperty(r => r.Says, says).SetProperty(r => r.Tries, tries),
                ct
            );
    }

    /// <summary>Somebody wants it tried again now.</summary>
    /// <returns>What it is now; null where there is no such errand.</returns>
    public async Task<ErrandNow?> AgainAsync(Guid id, DateTimeOffset now, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db
            .Outbox.Where(r => r.Id == id && (r.State == ErrandState.Waiting || r.State == ErrandState.GivenUp))
            .ExecuteUpdateAsync(
                set => set.SetProperty(r => r.State, ErrandState.Waiting).SetProperty(r => r.DueAt, now).SetProperty(r => r.Tries, 0),
                ct
            );
        if (db.Product.Telling(Word.Errands) is { } word) // another node may be the one that says it
            await Asking.DoAsync(db, word, ct);
        return await db.Outbox.AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, ct) is { } row ? Read(row) : null;
    }

    /// <summary>ErrandNow in some states, the newest first.</summary>
    /// <param name="before">The last one that was shown; null for the first page.</param>
    public async Task<IReadOnlyList<ErrandNow>> ListAsync(
        IReadOnlyCollection<ErrandState> states,
        (DateTimeOffset At, Guid Id)? before,
        int most,
        CancellationToken ct
    )
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var rows = db.Outbox.AsNoTracking().Where(r => states.Contains(r.State));
        if (before is var (at, id))
            rows = rows.Where(r => r.WrittenAt < at || (r.WrittenAt == at && r.Id.CompareTo(id) < 0));
        return [.. (await rows.OrderByDescending(r => r.WrittenAt).ThenByDescending(r => r.Id).Take(most).ToListAsync(ct)).Select(Read)];
    }

    /// <summary>How many there are in each state; of those that are over, the ones that were written after a moment.</summary>
    public async Task<IReadOnlyDictionary<ErrandState, int>> CountsAsync(DateTimeOffset since, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var counts = new Dictionary<ErrandState, int>();
        foreach (var state in Enum.GetValues<ErrandState>()) // one question each, which the index answers whatever the outbox has grown to
        {
            var of = db.Outbox.Where(r => r.State == state);
            counts[state] = await (state.IsOver() ? of.Where(r => r.WrittenAt > since) : of).CountAsync(ct);
        }
        return counts;
    }

    /// <summary>What waits to be said.</summary>
    public async Task<int> WaitingAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Outbox.CountAsync(r => r.State == ErrandState.Waiting, ct);
    }

    /// <summary>The ticket whose parcel a carrier has under this number; null where it has none of ours.</summary>
    public async Task<long?> TicketOfAsync(string carrier, string label, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db
            .Outbox.AsNoTracking()
            .Where(r => r.Label == label && r.Partner == carrier)
            .Select(r => (long?)r.Ticket)
            .FirstOrDefaultAsync(ct);
    }

    /// <summary>Whether another box of ours has this number with this carrier.</summary>
    public async Task<bool> HasLabelAsync(string carrier, string label, Guid but, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Outbox.AnyAsync(r => r.Label == label && r.Partner == carrier && r.Id != but, ct);
    }

    /// <summary>Parcels whose carrier is asked now what became of them; asked again at <paramref name="next"/>.</summary>
    public async Task<IReadOnlyList<ErrandNow>> FollowedAsync(DateTimeOffset now, DateTimeOffset next, int most, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var due = await db.Outbox.AsNoTracking().Where(r => r.FollowAt <= now).OrderBy(r => r.FollowAt).Take(most).ToListAsync(ct);
        var mine = new List<ErrandNow>();
        foreach (var row in due)
            if (
                await db
                    .Outbox.Where(r => r.Id == row.Id && r.FollowAt == row.FollowAt)
                    .ExecuteUpdateAsync(set => set.SetProperty(r => r.FollowAt, next), ct) == 1
            )
                mine.Add(Read(row));
        return mine;
    }

    /// <summary>Nothing more is expected of this parcel.</summary>
    public async Task FollowedToItsEndAsync(string carrier, string label, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db
            .Outbox.Where(r => r.Label == label && r.Partner == carrier)
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.FollowAt, (DateTimeOffset?)null), ct);
    }

    private static ErrandNow Read(OutboxRow row) =>
        new(row.Errand(), row.Ticket, row.WrittenAt, row.State, row.DueAt, row.Tries, row.Says, row.Label);
}
