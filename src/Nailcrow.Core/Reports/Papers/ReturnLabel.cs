using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Reports.Papers;

/// <summary>What stands on a box with one drive that goes back.</summary>
/// <param name="What">Its model and size, as far as they are known.</param>
/// <param name="CarriersNumber">Theirs for the parcel, where they were asked to fetch it or have it.</param>
/// <param name="Reason">Why it goes back, as the return says it.</param>
public sealed record ReturnLabel(
    long Ticket,
    DateTimeOffset AsOf,
    string To,
    string From,
    string Serial,
    string What,
    string Reason,
    string? Authorisation,
    DateOnly? DueBy,
    string? Carrier = null,
    string? CarriersNumber = null
)
{
    /// <summary>The label of a return that was opened on the ticket, or why there is none.</summary>
    public static Parsed<ReturnLabel> Of(TicketRecord record, string? serial)
    {
        var ticket = record.Ticket;
        var key = SerialNumber.Normalise(serial ?? "");
        if (ticket.Report is not { } report || ticket.Returns.Find(r => r.Serial == key) is not { } back)
            return new Parsed<ReturnLabel>.Refused(
                $"There is no return of {(key.Length > 0 ? key : "nothing")} on {TicketNumber.Text(ticket.Number)}; "
                    + $"returns: {string.Join(", ", ticket.Returns.Select(r => r.Serial).DefaultIfEmpty("none, open one first"))}."
            );
        var parcel = ticket.Parcels.LastOrDefault(p => p is { Stands: true, Label: not null } && p.Serials.Contains(key));
        return new Parsed<ReturnLabel>.Ok(
            new(
                ticket.Number,
                record.LastRecorded,
                $"{back.To}",
                $"{report.Site}, {report.Customer}",
                back.Serial,
                DriveNamed.On(ticket, back.Serial),
                back.Reason.Replace('-', ' '),
                back.Authorisation,
                back.DueBy,
                parcel?.Carrier ?? back.Carrier,
                parcel?.Label ?? back.Tracking
            )
        );
    }
}
