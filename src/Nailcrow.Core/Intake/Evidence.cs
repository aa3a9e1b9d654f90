using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Intake;

/// <summary>One piece of evidence on a ticket, with who saw it when.</summary>
/// <param name="Drive">The serial that was in the bay it names, where that is known: the next drive there is not accused of it.</param>
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
    string? Step,
    string? Drive = null
)
{
    public bool IsAbout(Bay bay) => IsAbout(bay.Label, bay.Serial);

    /// <summary>By serial where one is known: drives move, and what was said of one is not true of the next in its bay.</summary>
    public bool IsAbout(string bay, string? serial) =>
        (Serial ?? Drive) is { } named
            ? serial is not null && SerialComparison.Between(named, serial).Outcome == SerialOutcome.Exact
            : Bay is not null && string.Equals(Bay, bay, StringComparison.OrdinalIgnoreCase);

    /// <summary>The same, about the drive that a snapshot shows in its bay, where nobody knew that yet.</summary>
    public Evidence Known(Snapshot shown) =>
        Serial is null && Drive is null && shown.BayLabelled(Bay)?.Serial is { } serial ? this with { Drive = serial } : this;
}
