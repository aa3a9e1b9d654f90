using Nailcrow.Store.Products;

namespace Nailcrow.Store.Nodes;

/// <summary>
/// How far this node's clock is from the database's, which is the one that all nodes have. Entries are dated by the node that takes them and
/// signatures are held against its clock, so one that is off takes no part until it is set right.
/// </summary>
/// <param name="allowed">How far it may be off before the node takes no part.</param>
public sealed class NodeClock(TimeProvider time, TimeSpan allowed)
{
    /// <summary>What people and machines may be apart is two minutes and more; nodes of one firm are within a second.</summary>
    public static readonly TimeSpan UsuallyAllowed = TimeSpan.FromSeconds(30);

    // An answer that took longer tells too little.
    private static readonly TimeSpan Prompt = TimeSpan.FromSeconds(5);

    /// <summary>Ahead of the database where it is positive.</summary>
    public TimeSpan Off { get; private set; }

    public bool IsOff => Off.Duration() > allowed;

    /// <summary>As people say it.</summary>
    public string Says => Told(Off);

    /// <summary>Asked in the writer's turn, as what is written is dated by this clock: a clock may be moved between two looks at it.</summary>
    /// <param name="there">The database's time, told when the turn began.</param>
    /// <exception cref="ClockOffException">It is off; nothing may be written.</exception>
    internal void HasToBeRight(DateTimeOffset there)
    {
        var off = time.GetUtcNow() - there;
        if (off.Duration() > allowed)
            throw new ClockOffException(Told(off));
    }

    private static string Told(TimeSpan off) =>
        $"This node's clock is {off.Duration().TotalSeconds:0} s {(off > TimeSpan.Zero ? "ahead of" : "behind")} the database's.";

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

/// <summary>What is written would be dated by a clock that is wrong.</summary>
public sealed class ClockOffException(string says) : Exception(says);
