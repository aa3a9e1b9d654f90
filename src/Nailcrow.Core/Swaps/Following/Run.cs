using System.Collections.Immutable;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following.Leaving;

namespace Nailcrow.Core.Swaps.Following;

/// <summary>One answer given on the way through a sheet.</summary>
/// <param name="Branch">Which of the step's answers it came to: for a scan, how the serial compared.</param>
/// <param name="Said">What Nailcrow said to it: the comparison, or an overruling's reason.</param>
/// <param name="CameAt">When the run came to the step; the time up to <paramref name="At"/> is what it took.</param>
public sealed record Visit(
    string Step,
    string Answer,
    string Branch,
    string? Said,
    DateTimeOffset At,
    string By,
    bool Overruled = false,
    DateTimeOffset? CameAt = null
);

/// <summary>A clock that runs until a step is answered.</summary>
public sealed record RunningLimit(string Step, string Until, DateTimeOffset Deadline);

/// <summary>How far a sheet has been followed. The answers so far decide where it stands.</summary>
/// <param name="Current">The step to do now; null at the end.</param>
/// <param name="Since">When the run came to the current step.</param>
/// <param name="LeftFor">The step that was left to call for help, and is come back to.</param>
/// <param name="HandedOver">The run ended at a call: its end was not reached.</param>
public sealed record Run(
    Guid Sheet,
    string? Current,
    DateTimeOffset Since,
    ImmutableList<Visit> Visits,
    ImmutableList<RunningLimit> Limits,
    DateTimeOffset Began = default,
    string? LeftFor = null,
    bool HandedOver = false
)
{
    /// <summary>Scans at which somebody asked to see the serial before they had read it.</summary>
    public ImmutableHashSet<string> Shown { get; init; } = [];

    public bool IsFinished => Current is null;

    public static Run Begin(RunSheet sheet, DateTimeOffset at)
    {
        var run = new Run(sheet.Id, sheet.Steps[0].Id, at, [], [], at);
        return run with { Current = Applying(sheet, run, run.Current) };
    }

    /// <summary>Same step, same answer: the second of two people who did the same thing.</summary>
    public bool AlreadyHas(string step, string answer) =>
        Visits.FindLast(v => v.Step == step) is { } last && string.Equals(last.Answer, answer, StringComparison.OrdinalIgnoreCase);

    /// <summary>The run after a visit; an answer that leads nowhere (a serial read in part) leaves it where it is.</summary>
    internal Run After(RunSheet sheet, RunStep step, Visit visit)
    {
        var led = step.Kind == StepKind.Call && visit.Branch == RunStep.Refused ? LeadsNo.Leads(step) : step.Leading(visit.Branch);
        var limits = Limits.RemoveAll(l => l.Until == step.Id);
        if (step is { Kind: StepKind.Limit, Seconds: { } seconds, Until: { } until })
            limits = limits.Add(new(step.Id, until, visit.At.AddSeconds(seconds)));
        var visited = this with { Visits = Visits.Add(visit with { CameAt = Since }), Limits = limits };
        return led is null ? visited : visited.Led(sheet, step, led.Next, visit.At);
    }

    /// <summary>As it was before its last visit, which is answered again; a clock that the visit started does not run.</summary>
    internal Run Before(Visit last, DateTimeOffset at) =>
        this with
        {
            Current = last.Step,
            Since = at,
            HandedOver = false,
            Visits = Visits.RemoveAt(Visits.Count - 1),
            Limits = Limits.RemoveAll(l => l.Step == last.Step),
        };

    /// <summary>A sheet that was interrupted goes on where it was left.</summary>
    internal Run Resumed(DateTimeOffset at) => this with { Current = Current ?? LeftFor, Since = at, HandedOver = false };

    private Run Led(RunSheet sheet, RunStep from, string? target, DateTimeOffset at)
    {
        var next =
            target == StepAnswer.Back ? LeftFor
            : target == StepAnswer.HandOver ? null
            : target;
        var calls = sheet.Step(next)?.Kind == StepKind.Call;
        return this with
        {
            Current = Applying(sheet, this, next),
            Since = at,
            HandedOver = target == StepAnswer.HandOver,
            // From one call to the next the step that was left stays the same.
            LeftFor =
                from.Kind == StepKind.Call
                    ? target == StepAnswer.Back
                        ? null
                        : LeftFor
                    : calls
                        ? from.Id
                        : LeftFor,
        };
    }

    /// <summary>The first step at or after the target whose condition the answers so far fulfil.</summary>
    private static string? Applying(RunSheet sheet, Run run, string? target)
    {
        while (sheet.Step(target) is { When: { } when } step && !AnsweredConditions.Hold(when, sheet, run))
            target = step.Else;
        return target;
    }
}
