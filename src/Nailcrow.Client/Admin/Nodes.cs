namespace Nailcrow.Client.Admin;

/// <summary>The services that work on one record.</summary>
public sealed record NodeList(IReadOnlyList<NodeView> Nodes);

/// <summary>One of them.</summary>
/// <param name="Name">Its machine, and the number of its process there.</param>
/// <param name="Release">What it runs, as "0.2.0"; while nodes are upgraded one after the other, they differ.</param>
/// <param name="SilentSeconds">How long it has not been heard of; a node that is well says so every two seconds.</param>
/// <param name="Does">The work over time that is its own now, as "following-rebuilds".</param>
/// <param name="Answered">It gave this answer.</param>
/// <param name="TakesNoPart">Why it does nothing over time, and takes no calls: its clock is off. Null where all is well.</param>
public sealed record NodeView(
    string Name,
    string Release,
    DateTimeOffset Since,
    double SilentSeconds,
    IReadOnlyList<string> Does,
    bool Answered,
    string? TakesNoPart = null
);
