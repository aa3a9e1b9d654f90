using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Intake;

/// <summary>One piece of evidence on a ticket, with who saw it when.</summary>
/// <param name="Step">The step whose doing explains it, where the engineer caused it; it then speaks against nothing.</param>
public sealed record Evidence(
    EvidenceKind Kind,
    string Source,
    string Text,
    string? Bay,
    string? Serial,
    int? Count,
    DateTimeOffset At,
    string By,
    string? Step
)
{
    /// <summary>By serial where it names one: drives move, and what was said of one is not true of the next in its bay.</summary>
    public bool IsAbout(Bay bay) =>
        Serial is not null
            ? bay.Serial is not null && SerialComparison.Between(Serial, bay.Serial).Outcome == SerialOutcome.Exact
            : Bay is not null && string.Equals(Bay, bay.Label, StringComparison.OrdinalIgnoreCase);
}
