using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using static Nailcrow.Core.Tickets.Moves.Offering;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>What is done at the machine: arriving, looking, following the sheet, watching the rebuild.</summary>
internal static class RunMoves
{
    public static IEnumerable<OfferedMove> Of(Offering asked) =>
        [.. Site(asked), .. Seeing(asked), .. AtMachine(asked), .. Sheet(asked), .. Watching(asked), .. Rebuild(asked)];

    /// <summary>Why somebody leaves of their own; a hand-over and the ticket's end are entries themselves.</summary>
    private static readonly VisitEnd[] Leaving =
    [
        VisitEnd.RebuildRuns,
        VisitEnd.Done,
        VisitEnd.AnotherDay,
        VisitEnd.WaitsForPart,
        VisitEnd.NoAccess,
        VisitEnd.CustomerSaidNo,
        VisitEnd.NoBackup,
    ];

    private static IEnumerable<OfferedMove> Site(Offering asked)
    {
        var ticket = asked.Ticket;
        yield return asked.Entry(
            Move.Arrive,
            "I have arrived",
            new ArrivedOnSite(),
            notNow: asked.NotTheirs()
                ?? (
                    SiteVisits.There(ticket, asked.Actor.Name) is { } there && !SiteVisits.IsNew(there, asked.Now)
                        ? $"You are there since {EntryTold.Clock(there.ArrivedAt)}."
                        : null
                )
        );
        yield return asked.Entry(
            Move.Leave,
            "Leave the site",
            new LeftSite(VisitEnd.RebuildRuns),
            new LeftSite(VisitEnd.RebuildRuns, Some),
            [
                new(
                    "ended",
                    "Why you leave",
                    FieldKind.Choice,
                    Value: Words.Of(ticket.Swap.InSerial is null ? VisitEnd.AnotherDay : VisitEnd.RebuildRuns),
                    Choices: [.. Leaving.Select(w => new FieldChoice(Words.Of(w), EntryTold.Said(Words.Of(w))))]
                ),
                new("learnt", "What the next one has to know", FieldKind.Lines, Required: false, Most: 4_000),
            ],
            notNow: SiteVisits.There(ticket, asked.Actor.Name) is null ? "Nobody leaves who has not arrived." : null
        );
    }

    private static IEnumerable<OfferedMove> Seeing(Offering asked)
    {
        var ticket = asked.Ticket;
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
    }

    private static IEnumerable<OfferedMove> AtMachine(Offering asked)
    {
        var ticket = asked.Ticket;
        yield return Power(asked);
        yield return asked.Entry(
            Move.MoveAside,
            "I moved something aside",
            new MovedAside(""),
            new MovedAside(Some),
            [new("what", "What: a cable, a screen, a neighbour's plug")],
            notNow: Ended(ticket)
        );
        foreach (var aside in ticket.Aside)
            yield return asked.Entry(Move.PutBack, $"It is back: {aside}", new MovedAside(aside, Back: true), aside);
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

    private static OfferedMove Power(Offering asked) =>
        asked.Entry(
            Move.TellPower,
            asked.Ticket.IsOff ? "It is on again" : "Say what became of its power",
            new PowerTold(PowerChange.FoundOff),
            new PowerTold(PowerChange.FoundOff, Some, Some),
            [
                new(
                    "change",
                    "What became of it",
                    FieldKind.Choice,
                    Value: Words.Of(asked.Ticket.IsOff ? PowerChange.SwitchedOn : PowerChange.FoundOff),
                    Choices: [.. Enum.GetValues<PowerChange>().Select(c => new FieldChoice(Words.Of(c), EntryTold.Said(Words.Of(c))))]
                ),
                new("allowedBy", "Who allowed it, or knows of it"),
                new("because", "Why, if that is known", FieldKind.Lines, Required: false, Most: 4_000),
            ],
            notNow: Ended(asked.Ticket)
        );

    private static IEnumerable<OfferedMove> Sheet(Offering asked)
    {
        var (ticket, sheet, run) = (asked.Ticket, asked.Ticket.Sheet, asked.Ticket.Run);
        yield return new(
            Move.StartRun,
            asked.Known.Outdated is null ? "Start the run sheet" : "Go on with the sheet for what is so now",
            WhyNoStart(asked),
            MoveWay.Sheet,
            null,
            []
        );
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
                sheet.Step(step)?.Gate == GateFact.BayEstablished ? "Allow a trial pull of this bay" : $"Overrule {step}",
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

    private static IEnumerable<OfferedMove> Watching(Offering asked)
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

    private static IEnumerable<OfferedMove> Rebuild(Offering asked)
    {
        var ticket = asked.Ticket;
        yield return asked.Entry(
            Move.ChooseRebuild,
            "Say how much it copies",
            new RebuildChosen(RebuildCopies.UsedSpace),
            new RebuildChosen(RebuildCopies.UsedSpace, Some),
            [
                new(
                    "copies",
                    "It copies",
                    FieldKind.Choice,
                    Value: Words.Of(ticket.RebuildChosen?.Copies ?? asked.Known.Model?.RebuildCopies ?? RebuildCopies.WholeMember),
                    Choices: [.. Enum.GetValues<RebuildCopies>().Select(c => new FieldChoice(Words.Of(c), EntryTold.Said(Words.Of(c))))]
                ),
                new("because", "What was agreed about load, and by whom", FieldKind.Lines, Required: false, Most: 4_000),
            ],
            notNow: Ended(ticket)
        );
    }

    private static string? WhyNoStart(Offering asked)
    {
        var ticket = asked.Ticket;
        return Role(asked)
            ?? asked.NotTheirs()
            ?? (asked.Known.Outdated is null ? SheetCompiled.NotNow(ticket, isRecovery: false) : null)
            ?? (ticket.HoldReason is { } hold ? $"On hold: {hold}" : null)
            ?? asked.Known.WhyNoSheet;
    }

    private static string? Role(Offering asked) => asked.NotTheirRole([People.Role.Engineer, People.Role.Lead]);

    private static string? Ended(Ticket ticket) =>
        ticket.IsEnded ? $"{TicketNumber.Text(ticket.Number)} is {Words.Of(ticket.Stage)}." : null;
}
