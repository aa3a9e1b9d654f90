using Nailcrow.Core.People;

namespace Nailcrow.Core.Procedures;

/// <summary>One way to answer a step and where it leads; no <see cref="Next"/> means the end of the sheet.</summary>
public sealed record StepAnswer(string Answer, string Label, string? Next = null)
{
    /// <summary>Leads back to the step that was left for this one.</summary>
    public const string Back = "back";

    /// <summary>Ends the sheet without its end being reached: what is left is the lead's.</summary>
    public const string HandOver = "hand over";
}

/// <summary>One step of a run sheet, in the words the engineer reads.</summary>
/// <param name="Seconds">For hold: wait at least; for limit: finish within.</param>
/// <param name="Until">For limit: the step that has to be answered in time.</param>
/// <param name="Opens">What is opened, switched or slid out here and has to be put right again.</param>
/// <param name="Erases">True where the step destroys what is on a drive: its answer has to name bay and serial.</param>
/// <param name="Decides">Whose decision it is; null where anybody on the job may answer.</param>
/// <param name="Unit">For read: the unit of the value.</param>
/// <param name="When">What has to hold for the step to be done, where only answers will tell.</param>
/// <param name="Else">Where the run goes on where <see cref="When"/> does not hold.</param>
/// <param name="Drive">Which of the sheet's drives the step is about, from 0; null where it is about all or none.</param>
/// <param name="With">For call: what goes along with the call for help.</param>
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
    PointsAt Points = PointsAt.Nothing,
    string? Opens = null,
    string? Closes = null,
    bool Erases = false,
    Role? Decides = null,
    string? Unit = null,
    decimal? AtLeast = null,
    decimal? AtMost = null,
    string? When = null,
    string? Else = null,
    int? Drive = null,
    IReadOnlyList<string>? With = null,
    bool AllowsPull = false
)
{
    /// <summary>The answer that carries straight on: what a hold, a gate or a plain thing done leads to.</summary>
    public const string Done = "done";

    /// <summary>What is opened by switching a machine off, and closed by switching it on.</summary>
    public const string Power = "power";

    /// <summary>What one should see did not come: the way out that every such step has.</summary>
    public const string NotSo = "not-so";

    /// <summary>Where a call leads when the lead says no; a call without it waits until they say yes.</summary>
    public const string Refused = "refused";

    private const string Light = "the locator light"; // is on as long as nobody switches it off

    /// <summary>What is opened, slid out or switched here and has to be put right again; null where nothing is.</summary>
    public string? OpensThing() => Records == Procedures.Records.LightOn ? Light : Opens;

    public string? ClosesThing() => Records == Procedures.Records.LightOff ? Light : Closes;

    public StepAnswer? Leading(string answer) => Answers.FirstOrDefault(a => a.Answer == answer);

    /// <summary>These take what is read or typed; the branch follows from what the text is compared to.</summary>
    public bool TakesText => Kind is StepKind.Read or StepKind.Scan || Erases;

    /// <summary>Gates, holds and calls are passed by a decision that is checked; all other steps are answered with a fact.</summary>
    public bool IsPassed => Kind is StepKind.Gate or StepKind.Hold or StepKind.Call;
}
