using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Swaps.Learning;

namespace Nailcrow.Client.Procedures;

/// <summary>A procedure to publish, with the skeletons and fragments beside it.</summary>
/// <param name="File">Which of the files is the procedure.</param>
/// <param name="Files">File names, with their folder, to texts.</param>
/// <param name="Trusting">
/// The word for what is taken on trust, as checking tells it: whoever publishes has read that list and answers for it.
/// </param>
public sealed record PublishAsk(string File, IReadOnlyDictionary<string, string> Files, string? Trusting = null);

/// <summary>Why a version is not to be used any more, or is to be used again.</summary>
public sealed record WithdrawAsk(string Because);

/// <summary>One version of a procedure.</summary>
/// <param name="NoLonger">Why it is used for no new run although nobody withdrew it: what today's proof finds in it.</param>
/// <param name="Earlier">That it was withdrawn once and brought back, by whom and why.</param>
public sealed record VersionView(
    string Version,
    DateTimeOffset PublishedAt,
    string PublishedBy,
    int States,
    DateTimeOffset? WithdrawnAt,
    string? WithdrawnBy,
    string? WithdrawnBecause,
    string? NoLonger = null,
    string? Earlier = null
);

/// <summary>A procedure with its versions and its steps as written.</summary>
/// <param name="Drawing">Its steps and branches as an SVG.</param>
/// <param name="Trusted">What it is believed in, for which whoever published it answers.</param>
public sealed record ProcedurePage(
    string Id,
    string Title,
    string Version,
    ComesBack ComesBack,
    string AppliesTo,
    bool ByName,
    IReadOnlyList<VersionView> Versions,
    IReadOnlyList<WrittenStepView> Steps,
    string Drawing,
    IReadOnlyList<TakenOnTrust> Trusted
);

/// <summary>A step as written, its blanks open.</summary>
/// <param name="When">Under which condition it is on the sheet; null where always.</param>
public sealed record WrittenStepView(RunStep Step, string? When, bool Demanded, string File, long Line);

/// <summary>What differs between two versions.</summary>
public sealed record VersionDifference(string Procedure, string Before, string After, IReadOnlyList<StepChange> Changes);

/// <summary>How the steps of a procedure go in practice.</summary>
public sealed record TimesView(string Procedure, int Runs, IReadOnlyList<StepTimingView> Steps);

/// <param name="Seconds">Median of all visits.</param>
/// <param name="SlowSeconds">Nine of ten visits took no longer.</param>
/// <param name="TooEarly">Too few runs to say anything.</param>
public sealed record StepTimingView(
    string Step,
    int Runs,
    int Visits,
    double Seconds,
    double SlowSeconds,
    double Again,
    double Otherwise,
    int Overruled,
    bool TooEarly,
    bool Stuck
)
{
    public static StepTimingView Of(StepTiming timing) =>
        new(
            timing.Step,
            timing.Runs,
            timing.Visits,
            timing.Median.TotalSeconds,
            timing.Slow.TotalSeconds,
            timing.Again,
            timing.Otherwise,
            timing.Overruled,
            timing.TooEarlyToTell,
            timing.PeopleGetStuck
        );
}

/// <summary>A procedure that no new run gets, though nobody withdrew it: today's proof refuses it, or it cannot be read.</summary>
/// <param name="Procedure">Its id, where it could be read so far.</param>
/// <param name="Says">What is wrong, what is used instead, and what a lead does about it.</param>
public sealed record ProcedureNotUsed(string? Procedure, string Says);
