using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following;

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
        return step.Records switch
        {
            null => ticket,
            Records.Pulled => Pulled(ticket, sheet, step, answer, branch, stamp),
            Records.Backup => ticket with { Backup = answer },
            Records.BackupDetail => ticket with { BackupDetail = answer },
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
            Records.RebuildStarted => ticket with { Swap = ticket.Swap with { StartedByHandAt = stamp.At } },
            Records.OldDataCleared => ticket.Swap.InSerial is { } cleared ? ticket with { Wiped = ticket.Wiped.Add(cleared) } : ticket,
            Records.Restored => ticket with { RestoreConfirmedBy = stamp.By },
            Records.LightOn => ticket with { LocatorOn = true },
            Records.LightOff => ticket with { LocatorOn = false },
            _ => ticket,
        };

    /// <summary>Only a serial read whole says which drive came out; part of one, or one that may be misread, asks again.</summary>
    private static Ticket Pulled(Ticket ticket, RunSheet sheet, RunStep step, string answer, string branch, Stamp stamp) =>
        branch == Words.Of(SerialOutcome.Exact) ? new DrivePulled(sheet.DriveOf(step).Bay, sheet.DriveOf(step).Serial).Fold(ticket, stamp)
        : branch == Words.Of(SerialOutcome.Different)
            ? new DrivePulled(WentBack.Bay(ticket, sheet, step, answer), answer).Fold(ticket, stamp)
        : ticket;
}
