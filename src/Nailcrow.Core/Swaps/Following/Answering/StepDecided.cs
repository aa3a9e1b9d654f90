using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following.Answering;

/// <summary>An answer that is one role's to give: whether to go on is decided, not seen.</summary>
public sealed record StepDecided(Guid Sheet, string Step, string Answer) : DecisionBody
{
    public override string Told() => $"{Step}: decided {Answer}";

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now)
    {
        if (
            ticket is not { Sheet: { } sheet, Run: { } run }
            || sheet.Id != Sheet
            || run.Current != Step
            || sheet.Step(Step) is not { } step
        )
            return $"The run stands at '{ticket.Run?.Current ?? "its end"}', not at '{Step}'.";
        return step.Decides is not { } role ? $"'{Step}' is answered by whoever sees it, not decided."
            : !actor.Roles.Contains(role) ? $"'{Step}' is decided by a {Words.Of(role)}; call one."
            : step.Leading(Answer) is null
                ? $"'{Answer}' is no answer to '{Step}'; accepted: {string.Join(", ", step.Answers.Select(a => a.Answer))}."
            : null;
    }

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket is { Sheet: { } sheet, Run: { } run } && run.Current == Step && sheet.Step(Step) is { } step
            ? Stepping.Answer(ticket, sheet, run, step, Answer, stamp)
            : ticket.Raise(
                stamp,
                "step",
                $"'{Step}' was decided by {stamp.By} while the run stood at '{ticket.Run?.Current ?? "its end"}'."
            );
}
