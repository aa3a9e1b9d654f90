using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using static Nailcrow.Core.Tickets.Moves.Offering;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>What is done at the machine: arriving, looking, following the sheet, watching the rebuild.</summary>
internal static class RunMoves
{
    public static IEnumerable<OfferedMove> Of(Offering asked) => [.. Site(asked), .. Sheet(asked), .. Rebuild(asked)];

    private static IEnumerable<OfferedMove> Site(Offering asked)
    {
        var ticket = asked.Ticket;
        yield return asked.Entry(
            Move.Arrive,
            "I have arrived",
            new ArrivedOnSite(),
            notNow: asked.NotTheirs() ?? (ticket.ArrivedAt is null ? null : "The arrival is on record already.")
        );
        yield return new(
            Move.TakeSnapshot,
            "Ask the machine for a snapshot",
            asked.NotTheirRole(EntryBody.AllWriters) ?? Ended(ticket) ?? asked.NotReached(),
            MoveWay.Machine,
            null,
            []
        );
        yield return new(
            Move.TypeSnapshot,
            "Type what you see",
            asked.NotTheirRole(EntryBody.AllWriters) ?? Ended(ticket),
            MoveWay.Page,
            null,
            []
        );
        var drives = ticket.Latest?.Bays.Where(b => b.Serial is not null).Select(b => b.Serial ?? "").Take(1).ToList() ?? [];
        yield return new(
            Move.ChooseDrives,
            "Choose the drives",
            asked.Refused(new DrivesChosen(drives)),
            MoveWay.Page,
            new DrivesChosen(ticket.Chosen),
            []
        );
        yield return asked.Entry(
            Move.SwitchLight,
            ticket.LocatorOn ? "Light off" : "Light on",
            new LocatorSwitched(!ticket.LocatorOn),
            notNow: Ended(ticket)
        ) with
        {
            Way = asked.Known.Reachable ? MoveWay.Machine : MoveWay.Entry,
        };
    }

    private static IEnumerable<OfferedMove> Sheet(Offering asked)
    {
        var (ticket, sheet, run) = (asked.Ticket, asked.Ticket.Sheet, asked.Ticket.Run);
        yield return new(Move.StartRun, "Start the run sheet", WhyNoStart(asked), MoveWay.Sheet, null, []);
        yield return new(
            Move.FollowRun,
            "Go on with the run",
            asked.NotTheirs()
                ?? Role(asked)
                ?? (
                    run is null ? "There is no run sheet yet."
                    : run.IsFinished ? "The run is over."
                    : null
                ),
            MoveWay.Page,
            null,
            []
        );
        if (sheet is null || run?.Current is not { } step)
            yield break;
        if (sheet.Step(step) is { Decides: not null, Answers: [var first, ..] })
            yield return asked.Entry(
                Move.DecideStep,
                "Decide it",
                new StepDecided(sheet.Id, step, ""),
                new StepDecided(sheet.Id, step, first.Answer),
                null,
                step
            );
        if (sheet.Step(step) is { IsPassed: true })
        {
            yield return asked.Entry(Move.PassStep, "Go on", new StepPassed(sheet.Id, step), step, asked.NotTheirs());
            yield return asked.Entry(
                Move.OverruleStep,
                $"Overrule {step}",
                new StepOverruled(sheet.Id, step, ""),
                new StepOverruled(sheet.Id, step, Some),
                [Sentence("reason", "Why; it shows in the record for good")],
                step,
                asked.Refused(new StepPassed(sheet.Id, step)) is null ? "Its condition holds: there is nothing to overrule." : null
            );
        }
        if (run.Visits is [.., var last])
            yield return asked.Entry(
                Move.TakeBackStep,
                "Take this answer back",
                new StepTakenBack(sheet.Id, last.Step),
                last.Step,
                asked.NotTheirs()
            );
    }

    private static IEnumerable<OfferedMove> Rebuild(Offering asked)
    {
        var ticket = asked.Ticket;
        var array = Target.Array(ticket)?.Name ?? ticket.Sheet?.Array;
        var notNow = ticket.Swap.InSerial is null ? "There is no rebuild to read before a new drive is in." : null;
        yield return new(
            Move.TakeReading,
            "Ask the machine how far it is",
            asked.NotTheirRole(EntryBody.AllWriters) ?? Ended(ticket) ?? notNow ?? asked.NotReached(),
            MoveWay.Machine,
            null,
            []
        );
        yield return asked.Entry(
            Move.TypeReading,
            "Keep this reading",
            new ReadingTaken(array ?? "", Progress.Running, RebuildPhase.Rebuilding, Reading.Person),
            new ReadingTaken(array ?? Some, Progress.Running, RebuildPhase.Rebuilding, Reading.Person),
            [
                new(
                    "progress",
                    "It is",
                    FieldKind.Choice,
                    Value: Words.Of(Progress.Running),
                    Choices: [.. Enum.GetValues<Progress>().Select(p => new FieldChoice(Words.Of(p), Words.Of(p)))]
                ),
                new(
                    "phase",
                    "Phase",
                    FieldKind.Choice,
                    Value: Words.Of(RebuildPhase.Rebuilding),
                    Choices: [.. Enum.GetValues<RebuildPhase>().Select(p => new FieldChoice(Words.Of(p), Words.Of(p)))]
                ),
                new(
                    "percent",
                    "Percent on the screen",
                    FieldKind.Number,
                    Required: false,
                    Hint: "Leave it empty where the screen shows none."
                ),
            ],
            array,
            Ended(ticket) ?? notNow
        );
        if (ReadingTakenBack.TypedIn(ticket) is { } typed)
            yield return asked.Entry(
                Move.TakeBackReading,
                $"Take {(typed.Percent is { } percent ? $"{percent} %" : "the last typed reading")} back",
                new ReadingTakenBack(typed.At),
                notNow: Ended(ticket)
            );
    }

    private static string? WhyNoStart(Offering asked)
    {
        var ticket = asked.Ticket;
        return Role(asked)
            ?? asked.NotTheirs()
            ?? SheetCompiled.NotNow(ticket, isRecovery: false)
            ?? (ticket.HoldReason is { } hold ? $"On hold: {hold}" : null)
            ?? asked.Known.WhyNoSheet;
    }

    private static string? Role(Offering asked) => asked.NotTheirRole([People.Role.Engineer, People.Role.Lead]);

    private static string? Ended(Ticket ticket) =>
        ticket.IsEnded ? $"{TicketNumber.Text(ticket.Number)} is {Words.Of(ticket.Stage)}." : null;
}
