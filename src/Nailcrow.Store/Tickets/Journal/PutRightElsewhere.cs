using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Store.Returns.Ledger;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>
/// What the service noted on other tickets because of an entry is put right with it, in the same breath: nobody there wrote it, so
/// nobody there could.
/// </summary>
/// <param name="write">Writes an entry of the service's on a ticket.</param>
internal sealed class PutRightElsewhere(JournalBatch batch, NailcrowDb db, LedgerPen pen, Func<long, EntryBody, DateTimeOffset, Task> write)
{
    /// <param name="correction">The entry by which another one is not so any more, or not as it was.</param>
    /// <param name="gone">Drives that by the correction did not move as they had.</param>
    /// <param name="beside">Other open tickets of the same machine.</param>
    public async Task FollowAsync(
        Entry correction,
        Change change,
        IReadOnlyCollection<string> gone,
        IReadOnlyCollection<long> beside,
        DateTimeOffset now
    )
    {
        var record = batch.Now(correction.Ticket);
        var inBox = BoxGone(change);
        var serials = inBox is null ? gone : [.. gone, inBox];
        var because = $"On {TicketNumber.Text(record.Ticket.Number)}: {((EntryCorrected)correction.Body).Because}";
        var told = ToldAt(record, correction);
        foreach (var other in await TicketsAsync(serials, beside, record.Ticket.Number, withItself: inBox is not null))
        {
            var there = await batch.RecordAsync(db, other);
            foreach (var wrong in there.Arrived.Where(e => told.Contains(e.RecordedAt) && IsOf(e, record.Ticket.Number, gone, inBox)))
                if (there.Corrections.Of(wrong.Id) is null)
                    await write(
                        other,
                        await WhoHasItAsync(wrong, other) is { } taken
                            ? new NoteWritten($"{because} {taken}")
                            : new EntryCorrected(wrong.Id, because),
                        now
                    );
        }
    }

    /// <summary>What another ticket has all the same is not given back to the one that it was taken from; null where none has it.</summary>
    private async Task<string?> WhoHasItAsync(Entry wrong, long ticket)
    {
        if (wrong.Body is not PartUsedElsewhere used)
            return null;
        var line = await pen.LineAsync(used.Serial);
        return Reservable.WhyNot(line, ticket)
            ?? (
                line.Last is { Ticket: { } by, To: { MayKeep: false } to } && by != ticket
                    ? $"{line.Serial} is {to.Where()}, by {TicketNumber.Text(by)}."
                    : null
            );
    }

    /// <summary>The drive that was said to be in a box, where it was not in it after all.</summary>
    private static string? BoxGone(Change change) =>
        change.Was is ReturnArrived { SerialInBox: { } was }
        && SerialNumber.Normalise(was) is var inBox
        && (change.Says as ReturnArrived)?.SerialInBox is var says
        && (says is null || SerialNumber.Normalise(says) != inBox)
            ? inBox
            : null;

    /// <summary>When the entry, and what put it right before, was written down: what it meant to others was noted in the same breath.</summary>
    private static HashSet<DateTimeOffset> ToldAt(TicketRecord record, Entry correction)
    {
        var about = ((EntryCorrected)correction.Body).Entry;
        if (record.Find(about)?.Body is EntryCorrected earlier)
            about = earlier.Entry;
        return record
            .Arrived.Where(e => e.Id != correction.Id && (e.Id == about || (e.Body as EntryCorrected)?.Entry == about))
            .Select(e => e.RecordedAt)
            .ToHashSet();
    }

    private static bool IsOf(Entry entry, long ticket, IReadOnlyCollection<string> gone, string? inBox) =>
        entry.By == Actor.Service.Name
        && entry.Body switch
        {
            SwappedBeside went => went.Ticket == ticket && gone.Contains(SerialNumber.Normalise(went.Serial)),
            PartUsedElsewhere used => used.Ticket == ticket && gone.Contains(SerialNumber.Normalise(used.Serial)),
            ReturnArrived came => SerialNumber.Normalise(came.Serial) == inBox,
            PartTakenBack came => SerialNumber.Normalise(came.Serial) == inBox,
            NoteWritten note => inBox is not null && note.Text.StartsWith(OtherTickets.InTheBox(inBox), StringComparison.Ordinal),
            _ => false,
        };

    private async Task<IEnumerable<long>> TicketsAsync(IEnumerable<string> serials, IEnumerable<long> beside, long itself, bool withItself)
    {
        var tickets = beside.ToHashSet();
        foreach (var serial in serials.Distinct())
            tickets.UnionWith((await pen.LineAsync(serial)).Movements.Select(m => m.Ticket).OfType<long>());
        tickets.Remove(itself);
        if (withItself)
            tickets.Add(itself);
        return tickets.Order();
    }
}
