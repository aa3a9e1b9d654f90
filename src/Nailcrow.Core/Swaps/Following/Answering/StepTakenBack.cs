using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following.Answering;

/// <summary>
/// The last answer was a mistake: it stays in the journal, and the step is answered again. What was done to a drive is not undone
/// by words; a serial that was read off another drive than the one in hand did nothing to any.
/// </summary>
public sealed record StepTakenBack(Guid Sheet, string Step) : DecisionBody
{
    public override string Told() => $"{Step}: the answer was taken back";

    private static readonly Records[] Done =
    [
        Records.DrawnOut,
        Records.Pulled,
        Records.PutBack,
        Records.CarrierOff,
        Records.Inserted,
        Records.Unseated,
        Records.Withdrawn,
        Records.GivenUp,
        Records.Reseated,
        Records.RebuildStarted,
        Records.OldDataCleared,
    ];

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        ticket is not { Sheet: { } sheet, Run: { } run } || sheet.Id != Sheet ? "This ticket has no such run sheet."
        : run.Visits is not [.., var last] ? "Nothing has been answered yet."
        : last.Step != Step ? $"The last answer was given at '{last.Step}', not at '{Step}'; only the last one is taken back."
        : last.Overruled || sheet.Step(Step)?.Kind == StepKind.Call ? "A lead has spoken on this step; that is not taken back. Call again."
        : IsSlipAtScan(sheet.Step(Step), last) ? null
        : sheet.Step(Step)?.Records is { } records && Done.Contains(records)
            ? $"'{Step}' recorded what was done to a drive, and that is not undone by an answer. If it was otherwise, call and say so."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        if (
            ticket is not { Sheet: { } sheet, Run: { } run }
            || sheet.Id != Sheet
            || run.Visits is not [.., var last]
            || last.Step != Step
            || sheet.Step(Step) is not { } step
        )
            return ticket.Raise(stamp, "step", $"'{Step}' was taken back by {stamp.By}, and it was not the last one answered.");
        return (IsSlipAtScan(step, last) ? NotWrong(ticket, last) : Without(ticket, step)) with { Run = run.Before(last, stamp.At) };
    }

    /// <summary>The drive in hand may be right, and its neighbour's label was read.</summary>
    private static bool IsSlipAtScan(RunStep? step, Visit last) =>
        step is { Records: Records.Pulled } && last.Branch == Words.Of(SerialOutcome.Different);

    /// <summary>A drive is out, and nobody has read yet which: none is taken for the wrong one, and nobody holds that one.</summary>
    private static Ticket NotWrong(Ticket ticket, Visit last) =>
        ticket with
        {
            Swap = ticket.Swap with { WrongOut = null },
            Custody = ticket.Custody.Without(ticket.Swap.WrongOut ?? last.Answer, last.At),
        };

    /// <summary>A mark that was said by mistake does not count, and a machine that was not switched off was on.</summary>
    private static Ticket Without(Ticket ticket, RunStep step) =>
        PowerTimes.Of(step) is { } change ? ticket with { Power = PowerTimes.Without(ticket.Power, change) } : WithoutRecord(ticket, step);

    private static Ticket WithoutRecord(Ticket ticket, RunStep step) =>
        step.Records switch
        {
            Records.BayMark => ticket with
            {
                Swap = ticket.Swap with
                {
                    BayMarks = ticket.Swap.BayMarks.RemoveAll(m => m.Mark == (step.Mark ?? step.Id) && m.Attempt == ticket.Swap.Attempt),
                },
            },
            Records.ChassisMark => ticket with
            {
                Swap = ticket.Swap with { ChassisMarks = ticket.Swap.ChassisMarks.RemoveAll(m => m.Mark == (step.Mark ?? step.Id)) },
            },
            Records.Backup => ticket with { Backup = null },
            Records.BackupDetail => ticket with { BackupDetail = null },
            Records.Agreed => ticket with { Agreed = null },
            Records.RestoredFrom => ticket with { RestoredFrom = null },
            Records.Usable when ticket.SpaceSeen.FindLastIndex(s => s.Step == step.Id) is >= 0 and var last => ticket with
            {
                SpaceSeen = ticket.SpaceSeen.RemoveAt(last),
            },
            _ => ticket,
        };
}
