using Nailcrow.Core.Procedures;

namespace Nailcrow.Client.Procedures;

/// <summary>A procedure in the library, or the problems that keep its file out of it.</summary>
public sealed record ProcedureView(string File, string? Id, string? Title, string? Version, int Steps, IReadOnlyList<ProcedureProblem> Problems);

public sealed record ProcedureList(IReadOnlyList<ProcedureView> Procedures);
