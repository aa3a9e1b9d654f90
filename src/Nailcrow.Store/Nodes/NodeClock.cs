using Nailcrow.Store.Products;

namespace Nailcrow.Store.Nodes;

/// <summary>
/// How far this node's clock is from the database's, which is the one that all nodes have. Entries are dated by the node that takes them and
/// signatures are held against its clock, so one that is off takes no part until it is set right.
/// </summary>
public sealed class NodeClock(TimeProvider time)
{
    // What people and machines may be apart is two minutes and more; nodes of one firm are within a second.
    private static readonly TimeSpan Allowed = TimeSpan.FromSeconds(30);

    // An answer that took longer tells too little.
    private static readonly TimeSpan Prompt = TimeSpan.FromSeconds(5);

    /// <summary>Ahead of the database where it is positive.</summary>
    public TimeSpan Off { get; private set; }

    public bool IsOff => Off.Duration() > Allowed;

    /// <summary>As people say it.</summary>
    public string Says =>
        $"This node's clock is {Off.Duration().TotalSeconds:0} s {(Off > TimeSpan.Zero ? "ahead of" : "behind")} the database's.";

    internal async Task LookAsync(NailcrowDb db, CancellationToken ct)
    {
        var (before, sent) = (time.GetUtcNow(), Environment.TickCount64);
        var there = DateTimeOffset.FromUnixTimeMilliseconds(
            await Asking.NumberAsync(db, "SELECT (extract(epoch FROM clock_timestamp()) * 1000)::bigint", ct)
        );
        var took = TimeSpan.FromMilliseconds(Environment.TickCount64 - sent);
        if (took < Prompt)
            Off = before + took / 2 - there;
    }
}
