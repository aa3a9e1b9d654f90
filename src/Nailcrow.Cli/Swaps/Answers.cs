using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Cli.Swaps;

internal static class Answers
{
    /// <summary>
    /// An answer that is one role's to give is a decision, and so is going on past a gate, a hold or a call; everything else
    /// somebody answers is a fact.
    /// </summary>
    public static EntryBody Body(RunSheet sheet, RunStep step, string answer) =>
        step.Decides is not null ? new StepDecided(sheet.Id, step.Id, answer)
        : step.IsPassed && answer == RunStep.Done ? new StepPassed(sheet.Id, step.Id)
        : new StepAnswered(sheet.Id, step.Id, answer);
}
