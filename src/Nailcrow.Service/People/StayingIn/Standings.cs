using System.Collections.Concurrent;
using Nailcrow.Service.People.SecondFactor;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.StayingIn;

/// <summary>
/// What each session and key is good for, asked of the database and remembered for a breath: what is taken away here counts at once,
/// and what is taken away beside us within the breath. Only what keeps nobody out is remembered: whoever has just chosen a password
/// on another node is not refused here for not having one.
/// </summary>
internal sealed class Standings(Sessions sessions, ScriptKeys keys, SecondFactorRules rules, TimeProvider time)
{
    // Five seconds are promised; a stream is looked at every two.
    private const long RememberedMilliseconds = 1_500;

    // Twice as many as ever are in at once; beyond that the memory starts afresh.
    private const int Most = 4_000;

    private readonly ConcurrentDictionary<(Guid Id, string? Hash), (long At, Stand Stand)> _known = new();
    private readonly ConcurrentDictionary<Guid, DateTimeOffset> _seen = new();
    private readonly SemaphoreSlim _news = new(0, 1);

    /// <param name="id">Of a session, or of a key.</param>
    /// <param name="keyHash">Of what was shown as a key's secret; null for a session.</param>
    public async ValueTask<Stand?> OfAsync(Guid id, string? keyHash, CancellationToken ct)
    {
        if (Remembered((id, keyHash)) is { } known)
            return known;
        var standing = keyHash is null ? await sessions.StandAsync(id, ct) : await keys.StandAsync(id, keyHash, ct);
        if (standing is null)
            return null;
        var stand = new Stand(id, keyHash, standing, !standing.HasSecondFactor && !standing.Elsewhere && rules.Takes(standing.Roles));
        return stand is { MustChange: false, MustSetUp: false } ? Remember((id, keyHash), stand) : stand;
    }

    /// <summary>Somebody's sign-ins, roles or password are others now.</summary>
    public void Changed()
    {
        _known.Clear();
        try
        {
            _news.Release();
        }
        catch (SemaphoreFullException)
        {
            // It is known already that there is something new.
        }
    }

    /// <summary>Until something has changed, or so long.</summary>
    public Task ChangesAsync(TimeSpan atMost, CancellationToken ct) => _news.WaitAsync(atMost, ct);

    /// <summary>It was just heard of.</summary>
    public void Seen(Stand stand) => _seen[stand.Id] = time.GetUtcNow();

    /// <summary>When it was last heard of, where that is not written yet.</summary>
    public DateTimeOffset? SeenAt(Guid id) => _seen.TryGetValue(id, out var at) ? at : null;

    /// <summary>Who was heard of since this was last asked.</summary>
    public IReadOnlyList<KeyValuePair<Guid, DateTimeOffset>> TakeSeen()
    {
        var taken = _seen.ToArray();
        foreach (var one in taken)
            _seen.TryRemove(one); // unless it was heard of again
        return taken;
    }

    private Stand? Remembered((Guid, string?) of) =>
        _known.TryGetValue(of, out var known) && Environment.TickCount64 - known.At < RememberedMilliseconds ? known.Stand : null;

    private Stand Remember((Guid, string?) of, Stand stand)
    {
        if (_known.Count >= Most)
            _known.Clear();
        _known[of] = (Environment.TickCount64, stand);
        return stand;
    }
}
