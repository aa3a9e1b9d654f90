using System.Diagnostics.CodeAnalysis;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Products;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Intake;

public enum IntakeOutcome
{
    /// <summary>Understood, and not yet on a ticket.</summary>
    Pending,
    Joined,
    Ignored,
    Repeated,
    Unmatched,
    UnknownSender,
    Settled,
}

/// <summary>One message as it came in.</summary>
public sealed record IntakeItem(
    Guid Id,
    DateTimeOffset ReceivedAt,
    string Via,
    string Sender,
    string? App,
    string Text,
    IntakeOutcome Outcome,
    string? Rule,
    string? Asset,
    long? Ticket,
    Alert? Alert
);

/// <summary>Everything that came in, kept before anything is made of it, so that a crash loses nothing.</summary>
public sealed class IntakeLog(IDbContextFactory<NailcrowDb> dbs, DatabaseFile? file = null) : IAsyncDisposable
{
    /// <summary>Somebody here said it: bay and serial are kept as they were said, for when its machine is known.</summary>
    public const string ByPerson = "person";

    private readonly SemaphoreSlim _one = new(1, 1);
    private NailcrowDb? _db;
    private PreparedRows<IntakeRow>? _rows;
    private HeldFile? _held;
    private DateTimeOffset _hasRoomBefore;

    /// <summary>Keeps a batch in one transaction. A message that is here already counts once.</summary>
    public async Task KeepAsync(IReadOnlyList<IntakeItem> items, CancellationToken ct)
    {
        await _one.WaitAsync(ct);
        try
        {
            if (_db is null || _rows is null)
                await OpenAsync(ct);
            await using var transaction = await _db.Product.BeginAsync(_db, WritersTurn.Intake, ct);
            if (items.Any(i => i.ReceivedAt >= _hasRoomBefore))
                _hasRoomBefore = await _db.Product.RoomForIntakeAsync(_db, ct);
            var known = await KnownAsync(_db, items, ct);
            foreach (var item in items.DistinctBy(i => i.Id).Where(i => !known.Contains(i.Id)))
                await _rows.InsertAsync(Row(item));
            if (_db.Product.Telling(Word.Alerts) is { } word)
                await Asking.DoAsync(_db, word, ct);
            _held?.StillThere(_db);
            await transaction.CommitAsync(ct);
        }
        catch
        {
            await CloseAsync(); // whatever state it was left in, the next batch begins afresh
            throw;
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>What has not joined its ticket yet, oldest first.</summary>
    public async Task<IReadOnlyList<IntakeItem>> PendingAsync(int most, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var pending = nameof(IntakeOutcome.Pending);
        return
        [
            .. (
                await db.Intake.AsNoTracking().Where(r => r.Outcome == pending).OrderBy(r => r.ReceivedAt).Take(most).ToListAsync(ct)
            ).Select(Of),
        ];
    }

    /// <summary>Lets go of what came in before a moment and is over; what waits for anything stays.</summary>
    /// <returns>How many messages are gone.</returns>
    public async Task<int> TrimAsync(DateTimeOffset before, CancellationToken ct)
    {
        string[] over = [.. Over.Select(o => o.ToString())];
        await using var parts = await dbs.CreateDbContextAsync(ct);
        var gone = await parts.Product.TrimIntakeAsync(parts, before, over, ct);
        foreach (var outcome in over)
            for (var some = TrimmedAtOnce; some == TrimmedAtOnce; gone += some)
            {
                await using var db = await dbs.CreateDbContextAsync(ct); // some at a time: whoever keeps a message waits for none of it
                some = await db
                    .Intake.Where(r => r.Outcome == outcome && r.ReceivedAt < before)
                    .OrderBy(r => r.ReceivedAt)
                    .Take(TrimmedAtOnce)
                    .ExecuteDeleteAsync(ct);
            }
        return gone;
    }

    private const int TrimmedAtOnce = 1_000;

    // Not what is on its way to a ticket, nor what somebody has to say the machine of.
    private static readonly IntakeOutcome[] Over =
    [
        IntakeOutcome.Joined,
        IntakeOutcome.Ignored,
        IntakeOutcome.Repeated,
        IntakeOutcome.Unmatched,
        IntakeOutcome.Settled,
    ];

    /// <summary>What nobody understood, newest first.</summary>
    public async Task<IReadOnlyList<IntakeItem>> ListAsync(IReadOnlyCollection<IntakeOutcome> outcomes, int most, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var wanted = outcomes.Select(o => o.ToString()).ToList();
        return
        [
            .. (
                await db
                    .Intake.AsNoTracking()
                    .Where(r => wanted.Contains(r.Outcome))
                    .OrderByDescending(r => r.ReceivedAt)
                    .Take(most)
                    .ToListAsync(ct)
            ).Select(Of),
        ];
    }

    /// <summary>How many of each there are since a moment. One question each, so that the index answers it whatever the log has grown to.</summary>
    public async Task<IReadOnlyDictionary<IntakeOutcome, int>> CountsAsync(DateTimeOffset since, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var counts = new Dictionary<IntakeOutcome, int>();
        foreach (var outcome in Enum.GetValues<IntakeOutcome>())
        {
            var word = outcome.ToString();
            if (await db.Intake.CountAsync(r => r.Outcome == word && r.ReceivedAt > since, ct) is > 0 and var count)
                counts[outcome] = count;
        }
        return counts;
    }

    public async Task<IntakeItem?> FindAsync(Guid id, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Intake.AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, ct) is { } row ? Of(row) : null;
    }

    /// <summary>What became of some of them.</summary>
    public async Task SettleAsync(IReadOnlyCollection<Guid> ids, IntakeOutcome outcome, long? ticket, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var word = outcome.ToString();
        foreach (var some in ids.Chunk(500))
            await db
                .Intake.Where(r => some.Contains(r.Id))
                .ExecuteUpdateAsync(
                    set =>
                        set.SetProperty(r => r.Outcome, word).SetProperty(r => r.Ticket, ticket).SetProperty(r => r.Pending, (string?)null),
                    ct
                );
    }

    /// <summary>Messages that a new rule understands take their place among the pending.</summary>
    public async Task PutBackAsync(IReadOnlyCollection<IntakeItem> items, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        foreach (var item in items)
            await db
                .Intake.Where(r => r.Id == item.Id)
                .ExecuteUpdateAsync(
                    set =>
                        set.SetProperty(r => r.Outcome, item.Outcome.ToString())
                            .SetProperty(r => r.Rule, item.Rule)
                            .SetProperty(r => r.Asset, item.Asset)
                            .SetProperty(r => r.Pending, Text(item.Alert)),
                    ct
                );
    }

    /// <summary>
    /// The connection stays open between batches: prepared statements belong to one handle of the database, and a pool would hand
    /// out another.
    /// </summary>
    [MemberNotNull(nameof(_db), nameof(_rows))]
    private Task OpenAsync(CancellationToken ct)
    {
        _db = dbs.CreateDbContext();
        (_rows, _held) = (new(_db), file is null ? null : new(file));
        return _db.Database.OpenConnectionAsync(ct);
    }

    private async Task CloseAsync()
    {
        if (_db is not null)
            await _db.DisposeAsync();
        (_db, _rows) = (null, null);
    }

    public async ValueTask DisposeAsync()
    {
        await CloseAsync();
        _one.Dispose();
    }

    private static async Task<HashSet<Guid>> KnownAsync(NailcrowDb db, IReadOnlyList<IntakeItem> items, CancellationToken ct)
    {
        // Only events that carry an id of their own can come twice; a line of syslog gets its id here.
        var ids = items.Where(i => i.Via != "syslog").Select(i => i.Id).ToList();
        return ids.Count == 0 ? [] : await db.Intake.Where(r => ids.Contains(r.Id)).Select(r => r.Id).ToHashSetAsync(ct);
    }

    private static IntakeRow Row(IntakeItem item) =>
        new()
        {
            Id = item.Id,
            ReceivedAt = item.ReceivedAt,
            Via = item.Via,
            Sender = item.Sender,
            App = item.App,
            Text = item.Text,
            Outcome = item.Outcome.ToString(),
            Rule = item.Rule,
            Asset = item.Asset,
            Ticket = item.Ticket,
            Pending = item.Outcome == IntakeOutcome.Pending || item.Via == ByPerson ? Text(item.Alert) : null,
        };

    private static IntakeItem Of(IntakeRow row) =>
        new(
            row.Id,
            row.ReceivedAt,
            row.Via,
            row.Sender,
            row.App,
            row.Text,
            Enum.Parse<IntakeOutcome>(row.Outcome),
            row.Rule,
            row.Asset,
            row.Ticket,
            AlertOf(row.Pending)
        );

    /// <summary>
    /// What an earlier release made of a message and this one cannot read is looked at by a person, like any other nobody
    /// understood.
    /// </summary>
    private static Alert? AlertOf(string? pending)
    {
        try
        {
            return pending is null ? null : JsonSerializer.Deserialize(pending, JournalJson.Default.Alert);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static string? Text(Alert? alert) => alert is null ? null : JsonSerializer.Serialize(alert, JournalJson.Default.Alert);
}

/// <summary>Who may send signed events.</summary>
public sealed class EventSenders(IDbContextFactory<NailcrowDb> dbs, TimeProvider time, ISecretKeeper keeper)
{
    // Told apart from those that 0.1.0 kept in clear, which are protected at the first start after it.
    internal const string Protected = "protected:";

    /// <returns>Null where there is none, or where it was kept under keys that are gone: it has to be given anew.</returns>
    public async Task<string?> SecretAsync(string name, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        if ((await db.EventSenders.AsNoTracking().FirstOrDefaultAsync(s => s.Name == name, ct))?.Secret is not { } kept)
            return null;
        return kept.StartsWith(Protected, StringComparison.Ordinal) ? keeper.Open(kept[Protected.Length..]) : kept;
    }

    /// <summary>What was kept in clear by an earlier release is not any longer.</summary>
    public async Task ProtectAllAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        foreach (var clear in await db.EventSenders.AsNoTracking().Where(s => !s.Secret.StartsWith(Protected)).ToListAsync(ct))
        {
            var kept = Protected + keeper.Protect(clear.Secret);
            await db.EventSenders.Where(s => s.Name == clear.Name).ExecuteUpdateAsync(set => set.SetProperty(s => s.Secret, kept), ct);
        }
    }

    public async Task<IReadOnlyList<string>> NamesAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.EventSenders.Select(s => s.Name).OrderBy(n => n).ToListAsync(ct);
    }

    /// <summary>Adds a sender, or gives one a new secret.</summary>
    public async Task PutAsync(string name, string secret, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        await db.EventSenders.Where(s => s.Name == name).ExecuteDeleteAsync(ct);
        db.EventSenders.Add(
            new()
            {
                Name = name,
                Secret = Protected + keeper.Protect(secret),
                AddedAt = time.GetUtcNow(),
            }
        );
        await db.SaveChangesAsync(ct);
    }
}
