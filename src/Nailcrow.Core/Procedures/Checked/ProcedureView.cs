namespace Nailcrow.Core.Procedures.Checked;

/// <summary>A procedure with the result of its proof, or the problems that keep its file from being read.</summary>
/// <param name="States">Different situations that were looked at to prove it.</param>
/// <param name="Published">When this version was published; null where it was not.</param>
/// <param name="Trusted">What it is believed in; null where it could not be read.</param>
/// <param name="Trusting">The word for just this list, which publishing asks for.</param>
/// <param name="Withdrawn">Why this version was withdrawn; null where it stands.</param>
public sealed record ProcedureView(
    string File,
    string? Id,
    string? Title,
    string? Version,
    int Steps,
    IReadOnlyList<ProcedureProblem> Problems,
    IReadOnlyList<Finding> Findings,
    int States = 0,
    ComesBack? ComesBack = null,
    string? AppliesTo = null,
    DateTimeOffset? Published = null,
    string? PublishedBy = null,
    string? Withdrawn = null,
    bool ByName = false,
    IReadOnlyList<TakenOnTrust>? Trusted = null,
    string? Trusting = null
)
{
    public bool IsProved => Id is not null && Problems.Count == 0 && Findings.Count == 0;
}

public sealed record ProcedureList(IReadOnlyList<ProcedureView> Procedures);
