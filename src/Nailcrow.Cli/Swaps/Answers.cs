using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Cli.Swaps;

internal static class Answers
{
    /// <summary>Going on past a gate, a hold or a call is a decision; everything else somebody answers is a fact.</summary>
    public static EntryBody Body(RunSheet sheet, RunStep step, string answer) =>
        step.IsPassed && answer == RunStep.Done ? new StepPassed(sheet.Id, step.Id) : new StepAnswered(sheet.Id, step.Id, answer);
}
