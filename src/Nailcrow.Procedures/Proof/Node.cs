using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Proof;

/// <summary>One step as the proof sees it.</summary>
/// <param name="When">Whether it is done at all.</param>
/// <param name="Leads">Each answer and where it leads: a step's index, or one of the <see cref="Lead"/> numbers.</param>
/// <param name="Asks">The variables that have to be known before it is clear what the step does here.</param>
/// <param name="Writes">The variable its own answer sets; -1 where nothing asks for it.</param>
internal sealed record Node(
    ProcedureStep Step,
    Asked When,
    (string Answer, int To)[] Leads,
    int[] Asks,
    int Writes,
    ulong Opens,
    ulong Closes,
    ulong LightBit,
    ulong PowerBit,
    uint Mark
)
{
    /// <summary>A call that allows nothing, is always made, and leads back to where it was made.</summary>
    public bool OnlyComesBack =>
        Step.Step is { Kind: StepKind.Call, AllowsPull: false } && Writes < 0 && Step.When == Condition.Always && Leads is [(_, Lead.Back)];

    public string Thing => Step.Step.Opens ?? Step.Step.Closes ?? Things.Light;
}

/// <summary>Where an answer leads that is no step.</summary>
internal static class Lead
{
    public const int End = -1;
    public const int HandOver = -2;
    public const int Back = -3;

    /// <summary>On to the following step, which at the end of a loop may be the next drive's first.</summary>
    public const int GoOn = -4;
    public const int NextDrive = -5;
}

/// <summary>The things that are opened and closed, each by its name.</summary>
internal sealed class Things
{
    public const string Light = "the locator light";
    public const string Power = RunStep.Power;

    /// <summary>What has to be open before a drive can be reached, by how the machine is loaded; null where nothing has to.</summary>
    public static string? InTheWay(string? loading) =>
        loading == Words.Of(Loading.Inside) ? "the case"
        : loading == Words.Of(Loading.Top) ? "the cover"
        : loading == Words.Of(Loading.Drawer) ? "the drawer"
        : null;

    /// <summary>Whether a thing of this name is in the way on some kind of machine.</summary>
    public static bool IsInTheWay(string? thing) => Enum.GetValues<Loading>().Any(l => InTheWay(Words.Of(l)) == thing && thing is not null);

    // Bits of a ulong; no machine has so many things to open.
    private const int Most = 62;

    private readonly List<string> _names = [Light, Power];

    public Things(IEnumerable<ProcedureStep> steps) =>
        _names.AddRange(steps.SelectMany(s => new[] { s.Step.Opens, s.Step.Closes }).OfType<string>().Except(_names).Distinct().Take(Most));

    public ulong Bit(string? name) => name is not null && _names.IndexOf(name) is var at and >= 0 ? 1UL << at : 0;

    public IReadOnlyList<string> Told(ulong open) => [.. _names.Where((_, i) => (open >> i & 1) == 1)];
}
