using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Returns;

/// <summary>What a customer agreed to since a fault was reported counts as well: a drive with their data on it leaves only where both let it.</summary>
internal sealed class KnownAgreements(TicketJournal journal, ReferenceBook book, TimeProvider time)
{
    /// <returns>Why the drive may not leave; null where it may, or where the entry sends none.</returns>
    public async Task<string?> WhyNotAsync(long number, Intent intent, CancellationToken ct) =>
        intent.Body is ReturnOpened or EntryCorrected
        && await journal.ReadAsync(number, ct) is { Ticket: { Report: { } report } ticket } record
        && Corrections.By(record, intent, time.GetUtcNow()).Newly<ReturnOpened>() is { } back
        && string.IsNullOrWhiteSpace(back.DataAgreedBy)
        && Target.HoldsCustomersData(ticket, back.Serial)
        && await book.FindAsync(report.Asset, ct) is { Customer: var customer }
            ? Target.WhyDataStays(customer.Data, customer.Name)
            : null;
}
