namespace Nailcrow.Core.Procedures;

/// <summary>A procedure compiled for one ticket: every condition that was known is settled, every blank filled.</summary>
/// <param name="Version">SHA-256 of the procedure file's text, first 12 hex digits: a running ticket keeps what it was given.</param>
/// <param name="TargetSerial">The drive that is to come out.</param>
public sealed record RunSheet(
    Guid Id,
    string Procedure,
    string Title,
    string Version,
    string Array,
    string TargetBay,
    string TargetSerial,
    string ChassisSerial,
    IReadOnlyList<RunStep> Steps
)
{
    public RunStep? Step(string? id) => Steps.FirstOrDefault(s => s.Id == id);
}
