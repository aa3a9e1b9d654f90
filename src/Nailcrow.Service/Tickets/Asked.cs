using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Tickets;

/// <summary>What the service does on request is asked for under an id: asked again, as after a lost answer, it is not done again.</summary>
internal static class Asked
{
    /// <param name="act">Done where nothing was done on this ticket under this id before.</param>
    public static async Task<Results<Ok<Receipt>, ProblemHttpResult>> OnceAsync(
        TicketJournal journal,
        long number,
        Guid? id,
        Func<Ticket, Task<Results<Ok<Receipt>, ProblemHttpResult>>> act,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is not { } record ? Refusals.NoTicket(number)
        : Before(record, id) is { } before ? Receipts.Answer(before)
        : await act(record.Ticket);

    /// <summary>The receipt of what was done under this id before; null where nothing was.</summary>
    private static Written.Kept? Before(TicketRecord record, Guid? id) =>
        id is { } asked && record.Find(asked) is { } entry ? new(entry, record, Repeated: true) : null;
}
