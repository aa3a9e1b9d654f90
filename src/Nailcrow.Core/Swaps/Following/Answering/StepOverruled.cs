using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following.Answering;

/// <summary>A lead lets the run go on although its condition does not hold, in writing. It shows in the report for good.</summary>
public sealed record StepOverruled(Guid Sheet, string Step, string Reason) : DecisionBody
{
    public override string Told() => $"{Step}: OVERRULED: {Reason}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        ticket is not { Sheet: { } sheet, Run: { } run } || sheet.Id != Sheet || run.Current != Step
            ? $"The run stands at '{ticket.Run?.Current ?? "its end"}', not at '{Step}'."
        : string.IsNullOrWhiteSpace(Reason) ? "Overruling takes a reason in writing."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        if (ticket is not { Sheet: { } sheet, Run: { } run } || run.Current != Step || sheet.Step(Step) is not { } step)
            return ticket.Raise(
                stamp,
                "step",
                $"'{Step}' was overruled by {stamp.By} while the run stood at '{ticket.Run?.Current ?? "its end"}'."
            );
        var straight = step.Answers[0].Answer;
        var recorded = Recording.Of(ticket, sheet, step, Stepping.Expected(ticket, sheet, step) ?? straight, straight, stamp);
        return Stepping.Visited(recorded, sheet, run, step, new(Step, "overruled", straight, Reason, stamp.At, stamp.By, Overruled: true));
    }
}
