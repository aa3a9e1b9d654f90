using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Reports.Papers;

/// <summary>What lies in the box that goes from a ticket to one place: every drive that has not arrived there.</summary>
public static class PackingList
{
    /// <summary>Whom boxes of this ticket go to.</summary>
    public static IEnumerable<string> Recipients(Ticket ticket) =>
        ticket.Returns.Where(r => r.ArrivedAt is null).Select(r => $"{r.To}").Distinct();

    /// <param name="to">As <see cref="Recipients"/> says it; null where there is one.</param>
    public static Parsed<Form> Of(TicketRecord record, string? to)
    {
        var ticket = record.Ticket;
        var recipients = Recipients(ticket).ToList();
        var recipient =
            to is null && recipients.Count == 1 ? recipients[0] : recipients.Find(r => r.Equals(to, StringComparison.OrdinalIgnoreCase));
        if (ticket.Report is not { } report || recipient is null)
            return new Parsed<Form>.Refused(
                recipients.Count == 0
                    ? $"Nothing of {TicketNumber.Text(ticket.Number)} is on its way back or waits to be sent: open a return first."
                    : $"No box of {TicketNumber.Text(ticket.Number)} goes to {to ?? "nobody"}; say which: {string.Join(", ", recipients)}."
            );
        var inIt = ticket.Returns.Where(r => r.ArrivedAt is null && $"{r.To}" == recipient).ToList();
        return new Parsed<Form>.Ok(
            new(
                ticket.Number,
                "Packing list",
                record.LastRecorded,
                [new("To", recipient), new("From", $"{report.Site}, {report.Customer}"), new("Drives", $"{inIt.Count}"), .. Carried(inIt)],
                [.. inIt.Select(r => Line(record, r))],
                ["Whoever opens the box reads the serial on every drive and holds it against this list."],
                ["Packed by", "Opened by"]
            )
        );
    }

    private static IEnumerable<FormFact> Carried(IReadOnlyList<PartReturn> inIt)
    {
        foreach (var carrier in inIt.Where(r => r.Carrier is not null).Select(r => (r.Carrier, r.Tracking)).Distinct())
            yield return new("Carrier", carrier.Tracking is null ? carrier.Carrier! : $"{carrier.Carrier}, {carrier.Tracking}");
    }

    private static FormDrive Line(TicketRecord record, PartReturn back) =>
        new(
            back.Serial,
            DriveNamed.On(record.Ticket, back.Serial),
            [
                $"{Words.Capital(back.Reason.Replace('-', ' '))}{(back.Authorisation is { } number ? $", authorisation {number}" : "")}"
                    + $"{(back.DueBy is { } due ? $", due {due:yyyy-MM-dd}" : "")}.",
                DataOn(record, back.Serial),
            ]
        );

    /// <summary>What whoever opens the box has to know of what is on the drive.</summary>
    private static string DataOn(TicketRecord record, string serial)
    {
        var told = record.AsItCounts().Select(e => e.Body).ToList();
        return told.OfType<DriveWiped>().LastOrDefault(w => SerialNumber.Normalise(w.Serial) == serial) is { } wiped
                ? $"Wiped: {wiped.Method.TrimEnd('.')}."
            : !Target.HoldsCustomersData(record.Ticket, serial) ? "It held none of the customer's data."
            : told.OfType<ReturnOpened>().LastOrDefault(r => SerialNumber.Normalise(r.Serial) == serial)?.DataAgreedBy
                is { Length: > 0 } who
                ? $"The customer's data is on it; {who} agreed that it leaves."
            : "The customer's data is on it; by what was agreed it may leave.";
    }
}
