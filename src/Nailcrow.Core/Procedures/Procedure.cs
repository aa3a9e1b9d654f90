namespace Nailcrow.Core.Procedures;

/// <summary>Swap instructions as data, for a family of appliances, as read from its file.</summary>
/// <param name="AppliesTo">Model properties and the values this procedure is written for.</param>
public sealed record Procedure(
    string Id,
    string Title,
    string Version,
    string File,
    IReadOnlyDictionary<string, IReadOnlyList<string>> AppliesTo,
    IReadOnlyList<ProcedureStep> Steps
);

/// <summary>A step as written: its conditions open, its blanks in braces, with the line it stands on.</summary>
public sealed record ProcedureStep(
    RunStep Step,
    IReadOnlyDictionary<string, IReadOnlyList<string>> When,
    string? SecondsFrom,
    string? Then,
    long Line,
    long Column
);
