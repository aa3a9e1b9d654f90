using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following.Answering;

/// <summary>What an answer puts on record beside itself, by the step's <c>records:</c>.</summary>
internal static class Recording
{
    public static Ticket Of(Ticket ticket, RunSheet sheet, RunStep step, string answer, string branch, Stamp stamp)
    {
        if (step.Against == ScanTarget.DriveIn && branch == Words.Of(SerialOutcome.Exact))
            ticket = ticket with
            {
                Swap = ticket.Swap with { ScannedPart = SerialNumber.Normalise(Stepping.PartFor(ticket, sheet, step) ?? answer) },
            };
        if ((branch == RunStep.Done || step.Kind == StepKind.Read) && PowerTimes.Of(step) is { } change)
            ticket = Power(ticket, step, change, answer, stamp);
        return step.Records switch
        {
            null => ticket,
            Records.Pulled => Pulled(ticket, sheet, step, answer, branch, stamp),
            Records.Backup => ticket with { Backup = answer },
            Records.BackupDetail => ticket with { BackupDetail = answer },
            Records.Agreed => ticket with { Agreed = new(answer, stamp.At, stamp.By) },
            Records.RestoredFrom => ticket with { RestoredFrom = answer },
            Records.Usable => SpaceSeen(ticket, step, answer, stamp),
            Records.GivenUp => GivenUp(ticket, sheet, step, answer, stamp),
            _ => branch is "yes" or RunStep.Done or "exact" ? Affirmed(ticket, sheet, step, answer, stamp) : ticket,
        };
    }

    private static Ticket Affirmed(Ticket ticket, RunSheet sheet, RunStep step, string answer, Stamp stamp) =>
        step.Records switch
        {
            Records.ChassisMark => ticket with
            {
                Swap = ticket.Swap with { ChassisMarks = ticket.Swap.ChassisMarks.Add(new(step.Mark ?? step.Id, ticket.Swap.Attempt)) },
            },
            Records.BayMark => ticket with
            {
                Swap = ticket.Swap with { BayMarks = ticket.Swap.BayMarks.Add(new(step.Mark ?? step.Id, ticket.Swap.Attempt)) },
            },
            Records.PutBack => new DrivePutBack(
                WentBack.Bay(ticket, sheet, step, ticket.Swap.WrongOut, answer),
                ticket.Swap.WrongOut ?? ""
            ).Fold(ticket, stamp),
            Records.Inserted => new DriveInserted(
                sheet.DriveOf(step).Bay,
                ticket.Swap.ScannedPart ?? Stepping.PartFor(ticket, sheet, step) ?? ""
            ).Fold(ticket, stamp),
            Records.Reseated => new DriveReseated(
                sheet.DriveOf(step).Bay,
                ticket.Swap.InSerial ?? ticket.Swap.OutSerial ?? sheet.DriveOf(step).Serial
            ).Fold(ticket, stamp),
            Records.Withdrawn => ticket.Swap.InSerial is { } dead
                ? new DriveWithdrawn(sheet.DriveOf(step).Bay, dead).Fold(ticket, stamp)
                : ticket,
            Records.RebuildStarted => ticket with { Swap = ticket.Swap with { StartedByHandAt = stamp.At } },
            Records.OldDataCleared => ticket.Swap.InSerial is { } cleared ? DriveWiped.Fold(ticket, cleared, stamp) : ticket,
            Records.Restored => ticket with { RestoreConfirmedBy = stamp.By },
            Records.LightOn => ticket with { LocatorOn = true },
            Records.LightOff => ticket with { LocatorOn = false },
            _ => ticket,
        };

    /// <summary>What is written down there says who allowed it, or what had become of it.</summary>
    private static Ticket Power(Ticket ticket, RunStep step, PowerChange change, string answer, Stamp stamp)
    {
        var said = step.Kind == StepKind.Read ? answer : null;
        var isOn = change == PowerChange.SwitchedOn;
        return ticket with { Power = PowerTimes.After(ticket.Power, change, stamp.At, isOn ? said : null, isOn ? null : said) };
    }

    private static Ticket SpaceSeen(Ticket ticket, RunStep step, string answer, Stamp stamp) =>
        ByteSize.Parse(answer).Is(out var bytes, out _)
            ? ticket with
            {
                SpaceSeen = ticket.SpaceSeen.Add(new(stamp.At, bytes, stamp.By, step.Id)),
            }
            : ticket;

    private static Ticket GivenUp(Ticket ticket, RunSheet sheet, RunStep step, string answer, Stamp stamp) =>
        Words.Parse<NoReplacement>(answer, "reason").Is(out var reason, out _)
        && (ticket.Swap.InSerial ?? Stepping.PartFor(ticket, sheet, step)) is { } part
            ? new PartGivenUp(part, reason).Fold(ticket, stamp)
            : ticket;

    /// <summary>Only a serial read whole says which drive came out; part of one, or one that may be misread, asks again.</summary>
    private static Ticket Pulled(Ticket ticket, RunSheet sheet, RunStep step, string answer, string branch, Stamp stamp) =>
        branch == Words.Of(SerialOutcome.Exact) ? new DrivePulled(sheet.DriveOf(step).Bay, sheet.DriveOf(step).Serial).Fold(ticket, stamp)
        : branch == Words.Of(SerialOutcome.Different) ? Wrong(ticket, sheet, step, ReadOrGone(ticket, sheet, step, answer), stamp)
        : ticket;

    private static Ticket Wrong(Ticket ticket, RunSheet sheet, RunStep step, string serial, Stamp stamp) =>
        new DrivePulled(WentBack.Bay(ticket, sheet, step, serial), serial).Fold(ticket, stamp);

    /// <summary>Where the label says nothing, the drive is the one that the machine misses.</summary>
    private static string ReadOrGone(Ticket ticket, RunSheet sheet, RunStep step, string answer) =>
        ByAbsence.IsMeant(step, answer) && ticket.Run is { } run && ByAbsence.Of(ticket, sheet, step, run).Gone is { } gone ? gone : answer;
}
