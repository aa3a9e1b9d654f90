using Nailcrow.Core.Returns.Ending;

namespace Nailcrow.Core.Returns;

/// <summary>A drive going back: why, to whom, under which authorisation, by when, how far it has got, and what came of it.</summary>
public sealed record PartReturn(
    string Serial,
    string Reason,
    Holder To,
    string? Authorisation,
    DateOnly? DueBy,
    DateTimeOffset OpenedAt,
    string OpenedBy,
    string? Carrier = null,
    string? Tracking = null,
    DateTimeOffset? SentAt = null,
    DateTimeOffset? ArrivedAt = null,
    Outcome? Outcome = null,
    string? OutcomeSays = null,
    DateTimeOffset? SettledAt = null,
    string? SettledBy = null
)
{
    /// <summary>What is charged when it is late, with its currency; null where nothing was said.</summary>
    public string? LateCost { get; init; }

    /// <summary>When somebody in stores looked at it; null until then.</summary>
    public DateTimeOffset? InspectedAt { get; init; }
    public string? InspectedBy { get; init; }

    /// <summary>What was found of it then.</summary>
    public string? Found { get; init; }
    public InspectionFinding? FoundAs { get; init; }

    /// <summary>It lies in a depot, and nobody has looked at it yet.</summary>
    public bool WaitsForInspection => this is { ArrivedAt: not null, InspectedAt: null, To.Kind: HolderKind.Depot };

    /// <summary>By when it has to be there, and what else it costs: as it ends a sentence; empty where no day was said.</summary>
    public string Until() => DueBy is { } due ? $", to be there by {due:yyyy-MM-dd}{Late(LateCost)}" : "";

    /// <summary>What lateness costs, as it ends a sentence; empty where nothing was said.</summary>
    internal static string Late(string? cost) => string.IsNullOrWhiteSpace(cost) ? "" : $" (late, it costs {cost})";
}
