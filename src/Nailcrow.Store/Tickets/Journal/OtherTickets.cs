using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Linking;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Returns.Ledger;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>What an entry of one ticket means to others, noted in the same breath: one drive is in one place, and one machine is as it was last seen.</summary>
internal sealed class OtherTickets(JournalBatch batch, NailcrowDb db, LedgerPen pen, DateTimeOffset now)
{
    private AgainstTheRecord Against => new(batch, db, pen, WriteAsync);

    /// <param name="movesBefore">The hand-overs that the ticket had before the entry; one that is put right changes earlier ones.</param>
    public async Task ToldAsync(Entry entry, Change change, IReadOnlyCollection<CustodyMove> movesBefore)
    {
        var moves = batch.Now(entry.Ticket).Ticket.Custody.Moves;
        if (change.Was is not null && !ReferenceEquals(change.Was, change.Says)) // at another time it means the same to others
            await PutRightAsync(entry, change, movesBefore.Except(moves));
        if (!ReferenceEquals(moves, movesBefore)) // of a hundred entries hardly one moves a drive
        {
            var moved = moves.Except(movesBefore).ToList();
            await Against.MovedAsync(entry, moved);
            await TellWhatWentInAsync(batch.Now(entry.Ticket), moved, entry.Happened);
        }
        if (change.Newly<ReturnArrived>() is { SerialInBox: { } inBox } box)
            await BoxOfAnotherAsync(entry, box, SerialNumber.Normalise(inBox), change.At ?? entry.Happened);
        if (entry.Body is SnapshotTaken taken)
        {
            await Against.SeenAsync(entry, taken.Snapshot);
            await TellOtherTicketsAsync(entry, taken);
            await OpenFurtherAsync(entry);
        }
        else if (entry.Body is EntryCorrected correction)
            await UnseeAsync(batch.Now(entry.Ticket), correction);
        else if (entry.Body is TicketLinked linked && entry.By != Actor.Service.Name)
            await WriteAsync(linked.To, linked.FromThere(entry.Ticket), entry.Happened);
        else if (entry.Body is TicketJoined joined)
            await GoOverAsync(batch.Now(entry.Ticket), joined.Into, entry.Happened);
        else if (entry.Seq == 1)
            await OpenedAsync(entry.Ticket);
    }

    private async Task PutRightAsync(Entry correction, Change change, IEnumerable<CustodyMove> gone) =>
        await new PutRightElsewhere(batch, db, pen, WriteAsync).FollowAsync(
            correction,
            change,
            gone.Select(m => m.Serial).ToHashSet(),
            await OpenBesideAsync(batch.Now(correction.Ticket)),
            now
        );

    /// <summary>What is in the box is another ticket's: it is booked in there, in the same step.</summary>
    private async Task BoxOfAnotherAsync(Entry entry, ReturnArrived box, string inBox, DateTimeOffset at)
    {
        if (
            batch.Now(entry.Ticket).Ticket.Custody.HolderOf(inBox) is not null
            || (await pen.LineAsync(inBox)).Last is not { Ticket: { } number, To: { MayKeep: false } }
            || batch.Now(entry.Ticket).Ticket.Returns.Find(r => r.Serial == SerialNumber.Normalise(box.Serial)) is not { To: var to }
        )
            return;
        var there = (await batch.RecordAsync(db, number)).Ticket;
        if (there.Returns.Exists(r => r.Serial == inBox && r.ArrivedAt is null))
            await WriteAsync(number, new ReturnArrived(inBox, inBox, box.State, box.Shelf), at);
        else if (to.Kind == HolderKind.Depot)
            await WriteAsync(number, new PartTakenBack(inBox, to.Name, box.Shelf), at);
        else
            return;
        await WriteAsync(
            entry.Ticket,
            new NoteWritten($"{InTheBox(inBox)} belongs to {TicketNumber.Text(number)}; it is booked in there."),
            at
        );
    }

    /// <summary>How the note begins that tells of a drive that was in the box of another.</summary>
    public static string InTheBox(string serial) => $"{serial}, which was in the box,";

    /// <summary>Whoever opened it, a new ticket goes by what is known of its machine, and knows whether it is a repeat.</summary>
    private async Task OpenedAsync(long ticket)
    {
        await TellNewTicketAsync(batch.Now(ticket));
        await LinkEarlierAsync(batch.Now(ticket));
    }

    /// <summary>A drive that goes in here changes a bay of the machine that its other open tickets look at as well.</summary>
    private async Task TellWhatWentInAsync(TicketRecord record, IReadOnlyList<CustodyMove> moved, DateTimeOffset at)
    {
        var into = moved
            .Where(m => m.To.Kind == HolderKind.Bay && record.Ticket.Swaps.Any(s => s.InSerial == m.Serial && s.Bay == m.To.Name))
            .ToList();
        if (into.Count == 0)
            return;
        foreach (var other in await OpenBesideAsync(record))
        foreach (var move in into)
            await WriteAsync(other, new SwappedBeside(record.Ticket.Number, move.To.Name, move.Serial), at);
    }

    // A machine with more open tickets than this has one trouble, and somebody has to join them.
    private const int MostTold = 20;

    /// <summary>What one ticket saw of a machine is what its other open ones have to go by, in the same breath.</summary>
    private async Task TellOtherTicketsAsync(Entry look, SnapshotTaken taken)
    {
        foreach (var other in await OpenBesideAsync(batch.Now(look.Ticket)))
            await NoteMachineAsync(await batch.RecordAsync(db, other), new(taken.Snapshot, look.Ticket, look.By), look.Happened);
    }

    /// <summary>
    /// What was typed of this machine was not so: neither was what its other open tickets were told of it, and a ticket that was
    /// opened on it alone is none. That it was so after all takes their correction back as well.
    /// </summary>
    private async Task UnseeAsync(TicketRecord record, EntryCorrected correction)
    {
        var back = record.Find(correction.Entry)?.Body as EntryCorrected;
        if (
            !correction.IsNotSo()
            || record.Find(back?.Entry ?? correction.Entry) is not { Body: SnapshotTaken { Snapshot: var shown } } look
        )
            return;
        var because = $"On {TicketNumber.Text(record.Ticket.Number)}: {correction.Because}";
        foreach (var other in await OpenBesideAsync(record))
        {
            var beside = await batch.RecordAsync(db, other);
            foreach (
                var told in beside.Arrived.Where(e =>
                    e.Body is MachineSeen seen && seen.Ticket == record.Ticket.Number && seen.Snapshot.TakenAt == shown.TakenAt
                )
            )
                if ((back is null ? told : beside.Corrections.Of(told.Id)) is { } wrong)
                    await WriteAsync(other, new EntryCorrected(wrong.Id, because), now);
            if (
                back is null
                && beside.Ticket.Report is { SeenOn: { } on, Since: { } at }
                && on == record.Ticket.Number
                && at == look.Happened
            )
                await WriteAsync(other, NothingElseSpeaksFor(beside.Ticket) ? new TicketCancelled(because) : new NoteWritten(because), now);
        }
    }

    /// <summary>Nobody has taken it, and nobody has seen anything of their own.</summary>
    private static bool NothingElseSpeaksFor(Ticket ticket) =>
        ticket is { Engineer: null, Evidence.IsEmpty: true, Parts.IsEmpty: true, Run: null };

    /// <summary>What failed beside this ticket's own drive gets its own, in the same breath, and this one says so.</summary>
    private async Task OpenFurtherAsync(Entry look)
    {
        var record = batch.Now(look.Ticket);
        // A look that came late, or on a ticket that is over, shows what others have seen since.
        if (record.Ticket.IsEnded || record.Ticket.LastLook?.At != look.Happened)
            return;
        if (FurtherFault.Of(record.Ticket, []) is null)
            return; // nearly always: who else is open there need not be asked
        var beside = new List<Ticket>();
        foreach (var other in await OpenBesideAsync(record))
            beside.Add((await batch.RecordAsync(db, other)).Ticket);
        if (FurtherFault.Of(record.Ticket, beside) is not { } further)
            return;
        var opened = await batch.NextNumberAsync(db);
        await WriteAsync(opened, further, look.Happened);
        await OpenedAsync(opened);
        await WriteAsync(look.Ticket, new NoteWritten($"{TicketNumber.Text(opened)} was opened: {further.Symptom}"), look.Happened);
    }

    /// <summary>A new ticket goes by the newest look that another open one of its machine has.</summary>
    private async Task TellNewTicketAsync(TicketRecord opened)
    {
        var looks = new List<(TicketRecord Record, Snapshot Latest)>();
        foreach (var other in await OpenBesideAsync(opened))
            if (await batch.RecordAsync(db, other) is { Ticket.Latest: { } latest } record)
                looks.Add((record, latest));
        if (looks.Count == 0)
            return;
        var (seenOn, newest) = looks.MaxBy(l => l.Latest.TakenAt);
        var look = seenOn.Ticket.LastLook;
        await NoteMachineAsync(opened, new(newest, look?.On ?? seenOn.Ticket.Number, look?.By ?? Actor.Service.Name), newest.TakenAt);
    }

    /// <summary>What was known of the joined ticket is evidence on the other one, each piece as it was seen.</summary>
    private async Task GoOverAsync(TicketRecord from, long into, DateTimeOffset at)
    {
        var name = TicketNumber.Text(from.Ticket.Number);
        await WriteAsync(into, new TicketLinked(from.Ticket.Number, LinkKind.JoinedBy), at);
        if (from.Ticket.Report is { } report)
            await WriteAsync(
                into,
                new EvidenceSeen(EvidenceKind.Symptom, name, report.Symptom, report.Bay, report.Serial),
                report.Since ?? at
            );
        foreach (var seen in from.Ticket.Evidence)
            await WriteAsync(
                into,
                new EvidenceSeen(seen.Kind, $"{seen.Source}, {name}", seen.Text, seen.Bay, seen.Serial, seen.Count),
                seen.At
            );
    }

    // What failed again within a month is asked about as the same trouble.
    private static readonly TimeSpan Soon = TimeSpan.FromDays(30);

    /// <summary>A repeat within days knows its earlier one, and that one knows it.</summary>
    private async Task LinkEarlierAsync(TicketRecord opened)
    {
        if (opened.Ticket.Report is not { } report || (report.Bay ?? report.Serial) is null)
            return;
        var (number, since) = (opened.Ticket.Number, now - Soon);
        var earlier = await db
            .TicketLines.AsNoTracking()
            .Where(l => l.Asset == report.Asset && l.Number != number && l.Stage == Stage.Closed && l.ChangedAt >= since)
            .Where(l => (report.Bay != null && l.Bay == report.Bay) || (report.Serial != null && l.Serial == report.Serial))
            .OrderByDescending(l => l.Number)
            .Select(l => (long?)l.Number)
            .FirstOrDefaultAsync();
        if (earlier is not { } before)
            return;
        await WriteAsync(number, new TicketLinked(before, LinkKind.RepeatOf), now);
        await WriteAsync(before, new TicketLinked(number, LinkKind.RepeatedBy), now);
    }

    private async Task WriteAsync(long ticket, EntryBody body, DateTimeOffset at)
    {
        var record = await batch.RecordAsync(db, ticket);
        var note = record.Next(new(Guid.CreateVersion7(now), at, 0, Actor.Service, body), now);
        await batch.AddAsync(record.With(note), note);
    }

    private async Task<List<long>> OpenBesideAsync(TicketRecord record)
    {
        var (asset, number) = (record.Ticket.Report?.Asset ?? "", record.Ticket.Number);
        return await db
            .TicketLines.AsNoTracking()
            .Where(l => l.Asset == asset && !l.Ended && l.Number != number && l.Stage != Stage.Closed && l.Stage != Stage.Cancelled)
            .OrderByDescending(l => l.Number)
            .Select(l => l.Number)
            .Take(MostTold)
            .ToListAsync();
    }

    private async Task NoteMachineAsync(TicketRecord on, MachineSeen seen, DateTimeOffset at)
    {
        var note = on.Next(new(Guid.CreateVersion7(now), at, 0, Actor.Service, seen), now);
        if (note.Body is MachineSeen)
            await batch.AddAsync(on.With(note), note);
    }
}
