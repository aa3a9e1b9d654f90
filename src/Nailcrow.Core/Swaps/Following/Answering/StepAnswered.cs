using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following.Answering;

/// <summary>What was done, seen, read or scanned at a step.</summary>
/// <param name="Sheet">The sheet it was read from; answers written down from an older sheet are kept, and questioned.</param>
public sealed record StepAnswered(Guid Sheet, string Step, string Answer) : FactBody
{
    public override string Told() => $"{Step}: {Answer}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Lead];

    public override string? Problem(Ticket ticket)
    {
        if (ticket.Sheet is not { } sheet)
            return "There is no run sheet on this ticket yet; start one first.";
        if (sheet.Id != Sheet)
            return null;
        if (sheet.Step(Step) is not { } step)
            return $"The sheet has no step '{Step}'; the run stands at '{ticket.Run?.Current ?? "its end"}'.";
        if (step.Kind == StepKind.Call && Answer == RunStep.Refused)
            return $"Whether '{Step}' is refused is the lead's to say; going on takes the way that their answer opens.";
        if (step.IsPassed && Answer == RunStep.Done)
            return $"'{Step}' is a {Words.Of(step.Kind)}: it is passed when its condition holds, not answered.";
        if (string.IsNullOrWhiteSpace(Answer))
            return $"'{Step}' needs an answer.";
        if (step.Decides is { } role)
            return $"'{Step}' is decided by a {Words.Of(role)}, not answered.";
        if (step is { Kind: StepKind.Read, Unit: { } unit } && Answer != RunStep.NotSo)
            return OutOfRange(step, unit);
        return step.TakesText || step.Leading(Answer) is not null || WentBack.Said(ticket, step, Answer) is not null
            ? null
            : $"'{Answer}' is no answer to '{Step}'; accepted: {string.Join(", ", step.Answers.Select(a => a.Answer))}.";
    }

    private string? OutOfRange(RunStep step, string unit)
    {
        var dimension = Quantity.Measures(unit) ?? Dimension.Count;
        if (!Quantity.Parse(Answer, dimension, unit).Is(out var value, out var reason))
            return $"'{Step}': {reason}";
        var inUnit = Quantity.Parse("1", dimension, unit).Is(out var one, out _) ? value / one : value;
        return inUnit < step.AtLeast || inUnit > step.AtMost
            ? $"'{Step}': {Answer} is not between {step.AtLeast} and {step.AtMost} {unit}; read it again."
            : null;
    }

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        if (ticket is not { Sheet: { } sheet, Run: { } run } || sheet.Id != Sheet || sheet.Step(Step) is not { } step)
            return ticket.Raise(stamp, "sheet", $"'{Answer}' was answered at '{Step}' of a sheet that is not this ticket's.");
        if (run.Current == Step)
            return Stepping.Answer(ticket, sheet, run, step, Answer, stamp);
        if (run.AlreadyHas(Step, Answer))
            return ticket;
        var stood = run.Current is { } current ? $"while the run stood at '{current}'" : "after the run had ended";
        return Recording
            .Of(ticket, sheet, step, Answer, Stepping.Branch(ticket, sheet, step, Answer).Branch, stamp)
            .Raise(stamp, "step", $"'{Step}' was answered '{Answer}' by {stamp.By} {stood}.");
    }
}
