using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Tickets;

internal static class Receipts
{
    public static Results<Ok<Receipt>, ProblemHttpResult> Answer(Written written) =>
        written is Written.Kept kept ? TypedResults.Ok(Of(kept)) : Refusals.Of(written);

    public static Receipt Of(Written.Kept kept)
    {
        var (entry, ticket) = (kept.Entry, kept.Record.Ticket);
        var said = ticket.Run?.Visits.FindLast(v => v.At == entry.Happened && v.By == entry.By)?.Said;
        var raised = ticket.Discrepancies.Where(d => d.IsOpen && d.Entry == entry.Id).Concat(Elsewhere(kept.Record, entry)).ToList();
        return new(entry.Ticket, entry.Seq, entry.Id, entry.Hash, kept.Repeated, ticket.Stage, NextAction.Of(ticket), said, raised);
    }

    /// <summary>What the service noted right behind this entry belongs to it as well.</summary>
    private static IEnumerable<Discrepancy> Elsewhere(TicketRecord record, Entry entry)
    {
        foreach (var note in record.After(entry.Seq).TakeWhile(e => e.Body is SerialKnownElsewhere or MachineChanged))
        foreach (var raised in record.Ticket.Discrepancies.Where(d => d.IsOpen && d.Entry == note.Id))
            yield return raised;
    }
}
