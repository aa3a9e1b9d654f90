namespace Nailcrow.Store.Nodes;

/// <summary>Nodes that were heard of lately, for whoever has to know that none works: a move, other keys.</summary>
internal static class NodesAtWork
{
    public const string Names =
        "SELECT name AS \"Value\" FROM node WHERE seen_at > clock_timestamp() - interval '10 seconds' ORDER BY since, name";
}
