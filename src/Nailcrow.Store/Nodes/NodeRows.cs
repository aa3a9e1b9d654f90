using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Nodes;

/// <summary>A process that works on this database. Times are the database's, whose clock is the one that all of them have.</summary>
internal sealed class NodeRow
{
    public required Guid Id { get; init; }

    /// <summary>What people call it: its machine's name, and the process's number there.</summary>
    public required string Name { get; init; }
    public required DateTimeOffset Since { get; init; }
    public required DateTimeOffset SeenAt { get; set; }

    /// <summary>Its release; nodes of 0.1.0 do not say it.</summary>
    public string? Release { get; init; }

    /// <summary>The newest change of tables that it knows.</summary>
    public string? Tables { get; init; }

    /// <summary>The words that it reads in entries.</summary>
    public string[]? Reads { get; init; }

    /// <summary>Why it does no work over time, as a sentence; null where it does. Its share of it is the others'.</summary>
    public string? TakesNoPart { get; set; }
}

/// <summary>Whose turn a work is.</summary>
internal sealed class LeaseRow
{
    public required string Work { get; init; }
    public Guid? Node { get; set; }
    public required long Turn { get; set; }
    public required DateTimeOffset Until { get; set; }
}

internal static class NodeTables
{
    /// <summary>Only where several nodes may be.</summary>
    public static void MapNodes(this ModelBuilder builder)
    {
        builder.Entity<NodeRow>().ToTable("node").HasKey(r => r.Id);
        builder.Entity<LeaseRow>().ToTable("lease").HasKey(r => r.Work);
        builder.Entity<SharedKeyRow>().ToTable("shared_key").HasKey(r => new { r.Kind, r.Name });
    }
}
