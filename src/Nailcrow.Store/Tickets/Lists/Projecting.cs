using Nailcrow.Core.Intake;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Swaps.Learning;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Procedures;
using Nailcrow.Store.Swaps;

namespace Nailcrow.Store.Tickets.Lists;

/// <summary>What the lists keep of a ticket, made from its record alone.</summary>
internal static class Projecting
{
    /// <summary>
    /// Goes up by one whenever something here, or a rule of Core that it shows, changes what the lists say: they are then told
    /// anew from the journal, ticket by ticket, while the service answers.
    /// </summary>
    public const int ListRules = 16;

    public static TicketLineRow Line(TicketRecord record)
    {
        var ticket = record.Ticket;
        var report = ticket.Report ?? FaultReported.Lost;
        var danger = Danger.Of(ticket);
        var next = NextAction.Of(ticket, danger);
        var due = Deadline.Next(ticket, record.Arrived[^1].RecordedAt);
        var serial = ticket.Swap.OutSerial ?? ticket.Sheet?.TargetSerial ?? report.Serial?.ToUpperInvariant();
        return new()
        {
            Number = ticket.Number,
            Asset = report.Asset,
            Model = report.Model,
            Customer = report.Customer,
            Site = report.Site,
            Symptom = report.Symptom,
            Bay = Target.Label(ticket),
            Serial = serial,
            Stage = ticket.Stage,
            Ended = ticket.IsAtRest,
            Margin = danger.Margin,
            Urgency = Priority.Weight(ticket.IsAtRest, ticket.HoldReason is not null, danger.Help, danger.Margin, danger.AtWorst),
            Danger = danger.Sentence,
            Engineer = ticket.Engineer,
            NextWho = next.Who,
            Next = next.Say,
            NextMove = next.Move,
            HoldReason = ticket.HoldReason,
            AtWorst = danger.AtWorst,
            Help = danger.Help,
            DueAt = due?.At,
            DueOrder = due?.At is { } at ? at.UtcTicks : DateTimeOffset.MaxValue.UtcTicks,
            Due = due?.Kind,
            VisitFrom = ticket.Visit?.From,
            VisitTo = ticket.Visit?.To,
            Array = danger.Array,
            Escalated = ticket.Help is { IsOpen: true },
            Watched = IsWatched(ticket),
            ReceivedAt = ticket.ReceivedAt ?? record.Arrived[0].RecordedAt,
            ChangedAt = record.Arrived[^1].RecordedAt,
            Head = record.Head,
            HeadHash = record.Arrived[^1].Hash,
            Rules = ListRules,
        };
    }

    public static IEnumerable<DrivePlaceRow> Places(TicketRecord record) =>
        record
            .Ticket.Custody.Own.GroupBy(m => m.Serial)
            .Select(g => g.Last())
            .Select(last => new DrivePlaceRow
            {
                Serial = last.Serial,
                Ticket = record.Ticket.Number,
                Asset = record.Ticket.Report?.Asset ?? "",
                HolderKind = last.To.Kind,
                Holder = last.To.Name,
                At = last.At,
            });

    public static IEnumerable<SnapshotRow> Snapshots(TicketRecord record) =>
        record
            .AsItCounts()
            .Where(e => e.Body is SnapshotTaken)
            .Select(e => new SnapshotRow
            {
                Ticket = e.Ticket,
                Seq = e.Seq,
                Asset = record.Ticket.Report?.Asset ?? "",
                At = e.Happened,
                Source = ((SnapshotTaken)e.Body).Snapshot.Source,
                By = e.By,
            });

    public static IEnumerable<LifeEventRow> Life(TicketRecord record) =>
        DriveLife
            .Of(record)
            .Select(
                (e, nth) =>
                    new LifeEventRow
                    {
                        Serial = e.Serial,
                        Ticket = e.Ticket,
                        Nth = nth,
                        At = e.At,
                        Kind = Words.Of(e.Kind),
                        Asset = e.Asset,
                        Bay = e.Bay,
                        Sentence = e.Sentence,
                        By = e.By,
                    }
            );

    public static IEnumerable<StepTimeRow> StepTimes(TicketRecord record) =>
        StepVisit
            .Of(record.Ticket)
            .Select(v => new StepTimeRow
            {
                Ticket = v.Ticket,
                Nth = v.Nth,
                Procedure = v.Procedure,
                Version = v.Version,
                Step = v.Step,
                Seconds = v.Took.TotalSeconds,
                Branch = v.Branch,
                Overruled = v.Overruled,
                At = v.At,
            });

    /// <summary>Whether an entry says something of a drive's life, so that its ticket's events have to be told again.</summary>
    public static bool IsOfLife(EntryBody body) => body is SnapshotTaken or DriveWiped or EntryCorrected;

    public static string? Reversed(string? text) => text is null ? null : Shortened.Reversed(text);

    /// <summary>From the insert until the rebuild was last seen to have ended; one that failed and runs again is watched again.</summary>
    private static bool IsWatched(Ticket ticket) =>
        !ticket.IsEnded && ticket.Swap.InsertedAt is { } inserted && ticket.Readings.FindLast(r => r.At > inserted)?.IsOver() != true;
}
