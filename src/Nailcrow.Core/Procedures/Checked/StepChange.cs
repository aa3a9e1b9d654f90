namespace Nailcrow.Core.Procedures.Checked;

/// <summary>One step that differs between two versions.</summary>
/// <param name="What">added, removed, moved or changed.</param>
public sealed record StepChange(string Step, string What, string? Before, string? After);
