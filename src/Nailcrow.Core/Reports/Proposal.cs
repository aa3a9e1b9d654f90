using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Reports;

/// <summary>What the customer was advised to do beside this ticket's work, for them to decide on.</summary>
/// <param name="AsOf">When the newest entry was recorded that this goes by.</param>
/// <param name="Seen">Why: what is not well and stays in.</param>
public sealed record Proposal(
    long Ticket,
    DateTimeOffset AsOf,
    IReadOnlyList<string> Heading,
    IReadOnlyList<string> Seen,
    IReadOnlyList<AdviceGiven> Advised
)
{
    /// <summary>A proposal that proposes nothing is none: the reason says how something is advised.</summary>
    public static Parsed<Proposal> Of(TicketRecord record)
    {
        var ticket = record.Ticket;
        if (ticket.Report is not { } report || ticket.Advice.IsEmpty)
            return new Parsed<Proposal>.Refused(
                $"Nothing was advised on {TicketNumber.Text(ticket.Number)} yet. 'Advise the customer' on the ticket, or 'nailcrow ticket advise', does that."
            );
        return new Parsed<Proposal>.Ok(
            new(
                ticket.Number,
                record.LastRecorded,
                report.Heading(),
                [.. Danger.Of(ticket).Suspects.Select(s => s.Sentence)],
                ticket.Advice
            )
        );
    }
}
