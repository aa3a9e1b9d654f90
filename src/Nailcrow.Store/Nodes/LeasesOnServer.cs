using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.Nodes;

/// <summary>
/// Renews what this node has, takes what nobody has any more, and gives away what is more than its share. The database's clock says when a
/// lease ends; here it is over that long after its renewal was sent, which is earlier, whatever this machine's clock says.
/// </summary>
internal sealed class LeasesOnServer(IDbContextFactory<NailcrowDb> dbs, NodeClock clock, OtherReleases others, ILogger<LeasesOnServer> log)
    : BackgroundService,
        ILeases
{
    // Taken over within ten seconds of a node's end: so long until it has ended, and a round of another node's.
    private static readonly TimeSpan Lasts = TimeSpan.FromSeconds(6);
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(1.5);

    // A database that does not answer in this time is asked again on another connection.
    private static readonly TimeSpan Answers = TimeSpan.FromSeconds(4);

    // Work that another release has and this one does not is left to it.
    private static readonly string[] Names = Enum.GetNames<SharedWork>();

    private readonly Guid _node = Guid.CreateVersion7();
    private readonly Lock _one = new();
    private readonly Dictionary<SharedWork, Held> _held = [];
    private TaskCompletionSource _taken = Fresh();

    private sealed record Held(Lease Lease, CancellationTokenSource Ending, long Ends);

    public Task NextTaken => Volatile.Read(ref _taken).Task;

    public Lease? Of(SharedWork work)
    {
        lock (_one)
            return _held.TryGetValue(work, out var held) && Environment.TickCount64 < held.Ends ? held.Lease : null;
    }

    public async Task<IReadOnlyList<NodeNow>> NodesAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var nodes = await db
            .Database.SqlQuery<Heard>(
                $"""
                SELECT id, name, release, since, clock_timestamp() - seen_at AS silent, takes_no_part,
                  ARRAY(SELECT work FROM lease WHERE node = id AND until > clock_timestamp()) AS does
                FROM node WHERE seen_at > clock_timestamp() - interval '1 minute' ORDER BY since, name
                """
            )
            .ToListAsync(ct);
        return
        [
            .. nodes.Select(n => new NodeNow(
                n.Name,
                n.Release ?? Release.Before,
                new DateTimeOffset(n.Since, TimeSpan.Zero),
                n.Silent,
                [.. Enum.GetValues<SharedWork>().Where(w => n.Does.Contains(w.ToString()))],
                n.Id == _node,
                n.TakesNoPart
            )),
        ];
    }

    private sealed record Heard(Guid Id, string Name, string? Release, DateTime Since, TimeSpan Silent, string? TakesNoPart, string[] Does);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var (begun, failing) = (false, false);
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                using var soon = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken);
                soon.CancelAfter(Answers);
                await using var db = await dbs.CreateDbContextAsync(soon.Token);
                if (!begun)
                    await BeginAsync(db, soon.Token);
                begun = true;
                await RoundAsync(db, soon.Token);
                failing = false;
            }
            catch (Exception) when (stoppingToken.IsCancellationRequested)
            {
                break;
            }
            catch (Exception e)
            {
                if (!failing) // said once, however long it lasts
                    log.LogWarning("Leases cannot be renewed, and other nodes may take this one's work: {Reason}", e.Message);
                failing = true;
            }
            EndWhatIsOver();
            await Task.Delay(Every, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
        await GiveBackAsync();
    }

    private async Task BeginAsync(NailcrowDb db, CancellationToken ct)
    {
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO node (id, name, since, seen_at, release, tables, reads) VALUES (
              {_node}, {NodeName.Own}, clock_timestamp(), clock_timestamp(), {Release.Version}, {db
                .Database.GetMigrations()
                .Last()}, {JournalWords.All.Order(
                StringComparer.Ordinal
            )
                .ToArray()})
            ON CONFLICT DO NOTHING
            """,
            ct
        );
        foreach (var work in Names)
            await db.Database.ExecuteSqlAsync(
                $"INSERT INTO lease (work, turn, until) VALUES ({work}, 0, clock_timestamp()) ON CONFLICT DO NOTHING",
                ct
            );
    }

    private async Task RoundAsync(NailcrowDb db, CancellationToken ct)
    {
        var isOff = await IsOffAsync(db, ct);
        var sent = Environment.TickCount64;
        var why = isOff ? clock.Says : null;
        await db.Database.ExecuteSqlAsync($"UPDATE node SET seen_at = clock_timestamp(), takes_no_part = {why} WHERE id = {_node}", ct);
        await db.Database.ExecuteSqlAsync($"DELETE FROM node WHERE seen_at < clock_timestamp() - interval '1 day'", ct);
        await others.HearAsync(db, _node, ct);
        if (isOff)
            return;
        // A lease that has ended, there or here, is not renewed but taken anew, by a turn of its own: it may have been another's in between, and
        // what was begun under it here may still be on its way to the journal.
        var held = HeldHere();
        var renewed = await TurnsAsync(
            db,
            $"""
            UPDATE lease SET until = clock_timestamp() + {Lasts}
            WHERE node = {_node} AND until > clock_timestamp() AND work = ANY ({held})
            RETURNING work, turn
            """,
            ct
        );
        Keep(renewed, sent);
        var alive = await db
            .Database.SqlQuery<int>(
                $"SELECT count(*)::int AS \"Value\" FROM node WHERE seen_at > clock_timestamp() - {Lasts} AND takes_no_part IS NULL"
            )
            .SingleAsync(ct);
        var share = (Names.Length + alive - 1) / Math.Max(alive, 1);
        if (renewed.Count > share)
            await GiveAwayAsync(db, renewed.Skip(share).Select(t => t.Work), ct);
        else if (renewed.Count < share)
        {
            sent = Environment.TickCount64;
            var taken = await TurnsAsync(
                db,
                $"""
                UPDATE lease SET node = {_node}, turn = turn + 1, until = clock_timestamp() + {Lasts} WHERE work IN (
                  SELECT work FROM lease
                  WHERE (until <= clock_timestamp() OR (node = {_node} AND NOT work = ANY ({held}))) AND work = ANY ({Names})
                  ORDER BY work LIMIT {share - renewed.Count} FOR UPDATE SKIP LOCKED)
                RETURNING work, turn
                """,
                ct
            );
            Take(taken, sent);
        }
    }

    /// <summary>A node whose clock is wrong leaves the work to others: it would come too early, or not at all.</summary>
    private async Task<bool> IsOffAsync(NailcrowDb db, CancellationToken ct)
    {
        var was = clock.IsOff;
        await clock.LookAsync(db, ct);
        if (clock.IsOff && !was)
            log.LogError("{Says} It takes no part in the work, and says that it takes no calls, until its clock is right", clock.Says);
        else if (was && !clock.IsOff)
            log.LogInformation("This node's clock is right again; it takes part in the work and takes calls");
        if (clock.IsOff)
            await GiveAwayAsync(db, Enum.GetValues<SharedWork>(), ct);
        return clock.IsOff;
    }

    private static async Task<List<Turn>> TurnsAsync(NailcrowDb db, FormattableString sql, CancellationToken ct) =>
        [
            .. (await db.Database.SqlQuery<Turned>(sql).ToListAsync(ct))
                .Select(t => new Turn(Enum.Parse<SharedWork>(t.Work), t.Turn))
                .OrderBy(t => t.Work),
        ];

    private sealed record Turned(string Work, long Turn);

    private sealed record Turn(SharedWork Work, long Number);

    private string[] HeldHere()
    {
        lock (_one)
            return [.. _held.Keys.Select(w => w.ToString())];
    }

    private void Keep(List<Turn> renewed, long sent)
    {
        lock (_one)
            foreach (var turn in renewed)
                if (_held.TryGetValue(turn.Work, out var held) && held.Lease.Turn == turn.Number)
                    _held[turn.Work] = held with { Ends = sent + (long)Lasts.TotalMilliseconds };
    }

    private void Hold(Turn turn, long sent)
    {
        End(turn.Work);
        Measures.Held.Add(1, Measures.Of("work", turn.Work.ToString()));
        var ending = new CancellationTokenSource();
        _held[turn.Work] = new(new(turn.Work, turn.Number, ending.Token), ending, sent + (long)Lasts.TotalMilliseconds);
    }

    private void Take(List<Turn> taken, long sent)
    {
        if (taken.Count == 0)
            return;
        lock (_one)
            foreach (var turn in taken)
            {
                Measures.Taken.Add(1, Measures.Of("work", turn.Work.ToString()));
                Hold(turn, sent);
            }
        log.LogInformation("This node now does: {Works}", string.Join(", ", taken.Select(t => t.Work)));
        Interlocked.Exchange(ref _taken, Fresh()).SetResult();
    }

    /// <summary>First it is over here, and then another may have it.</summary>
    private async Task GiveAwayAsync(NailcrowDb db, IEnumerable<SharedWork> works, CancellationToken ct)
    {
        var names = works.ToList();
        lock (_one)
            names.ForEach(End);
        var given = names.ConvertAll(w => w.ToString());
        await db.Database.ExecuteSqlAsync($"UPDATE lease SET until = clock_timestamp() WHERE node = {_node} AND work = ANY ({given})", ct);
    }

    private void EndWhatIsOver()
    {
        lock (_one)
            foreach (var work in _held.Where(h => Environment.TickCount64 >= h.Value.Ends).Select(h => h.Key).ToList())
                End(work);
    }

    private void End(SharedWork work)
    {
        if (!_held.Remove(work, out var held))
            return;
        Measures.Held.Add(-1, Measures.Of("work", work.ToString()));
        _ = held.Ending.CancelAsync(); // whoever hears of it is not waited for
    }

    /// <summary>Going down: nobody has to wait until it has ended by itself.</summary>
    private async Task GiveBackAsync()
    {
        try
        {
            using var soon = new CancellationTokenSource(Answers / 2);
            await using var db = await dbs.CreateDbContextAsync(soon.Token);
            await GiveAwayAsync(db, Enum.GetValues<SharedWork>(), soon.Token);
            await db.Database.ExecuteSqlAsync($"DELETE FROM node WHERE id = {_node}", soon.Token);
        }
        catch (Exception e)
        {
            log.LogWarning("Leases were not given back, and end by themselves: {Reason}", e.Message);
        }
    }

    private static TaskCompletionSource Fresh() => new(TaskCreationOptions.RunContinuationsAsynchronously);
}
