namespace Nailcrow.Core.Procedures;

/// <summary>One way to answer a step and where it leads; no <see cref="Next"/> means the end of the sheet.</summary>
public sealed record StepAnswer(string Answer, string Label, string? Next = null);

/// <summary>One step of a run sheet, in the words the engineer reads.</summary>
/// <param name="Seconds">For hold: wait at least; for limit: finish within.</param>
/// <param name="Until">For limit: the step that has to be answered in time.</param>
public sealed record RunStep(
    string Id,
    StepKind Kind,
    string Chapter,
    string Say,
    IReadOnlyList<StepAnswer> Answers,
    string? See = null,
    string? Hear = null,
    string? IfNot = null,
    IReadOnlyList<string>? NormalNow = null,
    Records? Records = null,
    string? Mark = null,
    ScanTarget? Against = null,
    GateFact? Gate = null,
    int? Seconds = null,
    string? Until = null,
    PointsAt Points = PointsAt.Nothing
)
{
    /// <summary>The answer that carries straight on: what a hold, a gate or a plain thing done leads to.</summary>
    public const string Done = "done";

    public StepAnswer? Leading(string answer) => Answers.FirstOrDefault(a => a.Answer == answer);

    /// <summary>A read or a scan takes free text; its branch follows from what the text is compared to.</summary>
    public bool TakesText => Kind is StepKind.Read or StepKind.Scan;

    /// <summary>Gates, holds and calls are passed by a decision that is checked; all other steps are answered with a fact.</summary>
    public bool IsPassed => Kind is StepKind.Gate or StepKind.Hold or StepKind.Call;
}
