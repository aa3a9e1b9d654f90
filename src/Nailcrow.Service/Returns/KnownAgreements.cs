using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Returns;

/// <summary>What a customer agreed to since a fault was reported counts as well: a drive with their data on it leaves only where both let it.</summary>
internal sealed class KnownAgreements(TicketJournal journal, ReferenceBook book)
{
    /// <returns>Why the drive may not leave; null where it may, or where the entry sends none.</returns>
    public async Task<string?> WhyNotAsync(long number, EntryBody body, CancellationToken ct) =>
        body is ReturnOpened back
        && string.IsNullOrWhiteSpace(back.DataAgreedBy)
        && await journal.ReadAsync(number, ct) is { Ticket: { Report: { } report } ticket }
        && Target.HoldsCustomersData(ticket, back.Serial)
        && await book.FindAsync(report.Asset, ct) is { Customer: var customer }
            ? Target.WhyDataStays(customer.Data, customer.Name)
            : null;
}
