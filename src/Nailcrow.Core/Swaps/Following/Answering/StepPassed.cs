using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Swaps.Gates;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following.Answering;

/// <summary>Going on past a gate, a hold or a call, because its condition holds.</summary>
public sealed record StepPassed(Guid Sheet, string Step) : DecisionBody
{
    public override string Told() => $"{Step}: went on";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now)
    {
        if (ticket is not { Sheet: { } sheet, Run: { } run } || sheet.Id != Sheet)
            return "This ticket has no such run sheet.";
        if (run.Current != Step)
            return $"The run stands at '{run.Current ?? "its end"}', not at '{Step}'.";
        return sheet.Step(Step) is { IsPassed: true } step
            ? GateCheck.WhyNotYet(ticket, run, step, now)
            : $"'{Step}' is answered, not passed.";
    }

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        if (ticket is not { Sheet: { } sheet, Run: { } run } || sheet.Id != Sheet || sheet.Step(Step) is not { } step)
            return ticket.Raise(stamp, "sheet", $"'{Step}' was passed on a sheet that is not this ticket's.");
        if (run.Current != Step)
            return run.AlreadyHas(Step, RunStep.Done) || run.AlreadyHas(Step, RunStep.Refused)
                ? ticket
                : ticket.Raise(stamp, "step", $"'{Step}' was passed by {stamp.By} while the run stood at '{run.Current ?? "its end"}'.");
        // A late entry may show that the gate was not open when it was passed; the record has to say so.
        var unmet = GateCheck.Unmet(ticket, run, step, stamp.Judged);
        var branch = LeadsNo.IsTaken(ticket, run, step) ? RunStep.Refused : RunStep.Done;
        var passed = Stepping.Visited(ticket, sheet, run, step, new(Step, branch, branch, null, stamp.At, stamp.By));
        return unmet is null ? passed : passed.Raise(stamp, "gate", $"'{Step}' was passed by {stamp.By}, but at that time: {unmet}");
    }
}
