using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Reports.Papers;

/// <summary>What both sides sign before the engineer leaves: what was put in, and who has what came out.</summary>
public static class DeliveryNote
{
    public static Parsed<Form> Of(TicketRecord record)
    {
        var ticket = record.Ticket;
        // What another ticket moved is not here, and nobody here can sign for it.
        var lines = ticket
            .Custody.Moves.GroupBy(m => m.Serial)
            .Select(g => g.Last())
            .Where(last => last.ToldBy is null)
            .Select(last => Line(ticket, last.Serial, last.To))
            .ToList();
        return lines.Count == 0
            ? new Parsed<Form>.Refused(
                $"No drive or part has moved on {TicketNumber.Text(ticket.Number)} yet: issue the part, or record what came out."
            )
            : new Parsed<Form>.Ok(
                new(
                    ticket.Number,
                    "Delivery note",
                    record.LastRecorded,
                    [.. Handing.Whose(ticket), .. People(ticket)],
                    lines,
                    ["Each of these drives and parts is where this note says."],
                    ["For the customer", "Engineer"]
                )
            );
    }

    private static IEnumerable<FormFact> People(Ticket ticket)
    {
        if (ticket.SiteVisits is [.., var visit])
            yield return new("Engineer", visit.Engineer);
    }

    private static FormDrive Line(Ticket ticket, string serial, Holder holder) =>
        new(
            serial,
            DriveNamed.On(ticket, serial),
            [
                holder.Kind switch
                {
                    HolderKind.Bay => $"Fitted: it is in {holder}.",
                    HolderKind.Customer => $"It stays here, with {holder}.",
                    HolderKind.Engineer => ticket.Swaps.Any(s => s.OutSerial == serial)
                        ? $"Came out; {holder} takes it along."
                        : $"Not fitted; {holder} has it.",
                    HolderKind.Destroyed => "Destroyed here.",
                    _ => $"It is {holder.Where()}.",
                },
            ]
        );
}
