namespace Nailcrow.Store.Nodes;

/// <summary>Work over time that one node does for all of them. By these names it stands in the database, so none is ever named anew.</summary>
public enum SharedWork
{
    /// <summary>Machines are asked how their rebuilds go.</summary>
    FollowingRebuilds,

    /// <summary>Alerts are taken to their tickets.</summary>
    JoiningAlerts,

    /// <summary>Machines are asked to push their events, or their streams are read.</summary>
    HearingMachines,

    /// <summary>What is to be said outside is said.</summary>
    SayingOutside,

    /// <summary>People are told by mail how they come in.</summary>
    TellingPeople,

    /// <summary>People are reminded of what has to be back.</summary>
    Reminding,

    /// <summary>Pictures go that were kept as long as was agreed.</summary>
    LettingPicturesGo,

    /// <summary>The day is sealed.</summary>
    Sealing,

    /// <summary>Lists are told anew by today's rules.</summary>
    TellingLists,
}

/// <summary>A node's right to do a work, which ends by itself where the node does not renew it.</summary>
/// <param name="Turn">
/// Goes up with each node that takes it. What is written under a lease is held against it in the same transaction: a node that slept
/// while another took over writes nothing more.
/// </param>
/// <param name="Over">Cancelled once the lease is another's or may be.</param>
public sealed record Lease(SharedWork Work, long Turn, CancellationToken Over);

/// <summary>What was to be written belongs to a work that another node has taken over meanwhile.</summary>
public sealed class LeaseLostException(SharedWork work) : OperationCanceledException($"Another node has taken over: {work}.");

/// <summary>A node as it is now.</summary>
/// <param name="Silent">How long it has not been heard of.</param>
/// <param name="TakesNoPart">Why it does nothing over time, as a sentence; null where it does its share.</param>
public sealed record NodeNow(
    string Name,
    string Release,
    DateTimeOffset Since,
    TimeSpan Silent,
    IReadOnlyList<SharedWork> Does,
    bool IsThis,
    string? TakesNoPart = null
);

/// <summary>Which of the work over time is this node's.</summary>
public interface ILeases
{
    /// <returns>Null where it is another node's, or nobody's for the moment.</returns>
    Lease? Of(SharedWork work);

    /// <summary>Completes when this node takes some of the work after this call.</summary>
    Task NextTaken { get; }

    /// <summary>All nodes that were heard of within the last minute, those that have been there longest first.</summary>
    Task<IReadOnlyList<NodeNow>> NodesAsync(CancellationToken ct);
}

/// <summary>On the file there is one process, and all the work is its own.</summary>
internal sealed class AllOurs(TimeProvider time) : ILeases
{
    private readonly DateTimeOffset _since = time.GetUtcNow();

    public Lease? Of(SharedWork work) => new(work, 0, CancellationToken.None);

    public Task NextTaken { get; } = new TaskCompletionSource().Task;

    public Task<IReadOnlyList<NodeNow>> NodesAsync(CancellationToken ct) =>
        Task.FromResult<IReadOnlyList<NodeNow>>([
            new(NodeName.Own, Release.Version, _since, TimeSpan.Zero, Enum.GetValues<SharedWork>(), IsThis: true),
        ]);
}

public static class NodeName
{
    /// <summary>What people call this process: its machine, and its number there.</summary>
    public static string Own { get; } =
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{Environment.MachineName} {Environment.ProcessId}");
}
