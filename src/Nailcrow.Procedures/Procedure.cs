using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Procedures.Conditions;

namespace Nailcrow.Procedures;

/// <summary>Swap instructions as data, for a family of appliances, as read from its file with all it is built from.</summary>
/// <param name="AppliesTo">Which machines and tickets it is written for.</param>
/// <param name="ByName">Taken only when somebody asks for it, as a recovery is.</param>
/// <param name="Facts">Everything a condition in it may name, its own answers included.</param>
public sealed record Procedure(
    string Id,
    string Title,
    string Version,
    string File,
    ComesBack ComesBack,
    bool ByName,
    Condition AppliesTo,
    IReadOnlyDictionary<string, FactType> Facts,
    IReadOnlyList<ProcedureStep> Steps
)
{
    public int IndexOf(string id)
    {
        for (var i = 0; i < Steps.Count; i++)
            if (Steps[i].Id == id)
                return i;
        return -1;
    }
}

/// <summary>A step as written: its conditions open, its blanks in braces.</summary>
/// <param name="SecondsFrom">The model property that gives the length of a hold or a limit.</param>
/// <param name="Then">Where it leads without an answer, if not to the next step.</param>
/// <param name="NotSo">Where it leads when what one should see does not come.</param>
/// <param name="Loop">The loop over drives that it stands in, from 0; null outside.</param>
/// <param name="Demanded">It comes from the skeleton: no variant may lead around it.</param>
/// <param name="MovesNothing">Its author says that no drive is moved or emptied by it.</param>
/// <param name="Means">What a word that sounds as if one were means here, by the word.</param>
public sealed record ProcedureStep(
    RunStep Step,
    Condition When,
    string? SecondsFrom,
    string? Then,
    string? NotSo,
    int? Loop,
    bool Demanded,
    Place At,
    bool MovesNothing,
    IReadOnlyDictionary<string, string> Means
)
{
    public string Id => Step.Id;
}
