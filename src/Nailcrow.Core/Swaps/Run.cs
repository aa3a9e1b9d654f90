using System.Collections.Immutable;
using Nailcrow.Core.Procedures;

namespace Nailcrow.Core.Swaps;

/// <summary>One answer given on the way through a sheet.</summary>
/// <param name="Branch">Which of the step's answers it came to: for a scan, how the serial compared.</param>
/// <param name="Said">What Nailcrow said to it: the comparison, or an overruling's reason.</param>
public sealed record Visit(string Step, string Answer, string Branch, string? Said, DateTimeOffset At, string By, bool Overruled = false);

/// <summary>A clock that runs until a step is answered.</summary>
public sealed record RunningLimit(string Step, string Until, DateTimeOffset Deadline);

/// <summary>How far a sheet has been followed. The answers so far decide where it stands.</summary>
/// <param name="Current">The step to do now; null at the end.</param>
/// <param name="Since">When the run came to the current step.</param>
public sealed record Run(Guid Sheet, string? Current, DateTimeOffset Since, ImmutableList<Visit> Visits, ImmutableList<RunningLimit> Limits)
{
    public bool IsFinished => Current is null;

    public static Run Begin(RunSheet sheet, DateTimeOffset at) => new(sheet.Id, sheet.Steps[0].Id, at, [], []);

    /// <summary>Same step, same answer: the second of two people who did the same thing.</summary>
    public bool AlreadyHas(string step, string answer) =>
        Visits.FindLast(v => v.Step == step) is { } last && string.Equals(last.Answer, answer, StringComparison.OrdinalIgnoreCase);

    /// <summary>The run after a visit; an answer that leads nowhere (a serial read in part) leaves it where it is.</summary>
    internal Run After(RunStep step, Visit visit)
    {
        var stays = step.Leading(visit.Branch) is null;
        var limits = Limits.RemoveAll(l => l.Until == step.Id);
        if (step is { Kind: StepKind.Limit, Seconds: { } seconds, Until: { } until })
            limits = limits.Add(new(step.Id, until, visit.At.AddSeconds(seconds)));
        return this with
        {
            Current = stays ? Current : step.Leading(visit.Branch)?.Next,
            Since = stays ? Since : visit.At,
            Visits = Visits.Add(visit),
            Limits = limits,
        };
    }
}
