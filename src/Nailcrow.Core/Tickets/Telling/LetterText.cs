using Nailcrow.Core.Intake;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Telling;

/// <summary>What a mail about a ticket says.</summary>
public sealed record LetterText(string Subject, string Body)
{
    /// <param name="today">In UTC.</param>
    /// <returns>Null where the entry asks for no mail, or for one about a drive that goes nowhere any more.</returns>
    public static LetterText? Of(TicketRecord record, Guid asked, DateOnly today)
    {
        var ticket = record.Ticket;
        var (number, report) = (TicketNumber.Text(ticket.Number), ticket.Report ?? FaultReported.Lost);
        var about = $"{report.Asset} at {report.Site}";
        return record.Find(asked) is not { } entry
            ? null
            : entry.Body switch
            {
                PaperMailed mailed => new($"{number}: {Words.Capital(mailed.Called())}, {about}", Paper(mailed, entry.By, number, about)),
                ReturnReminded reminded when ticket.Returns.Find(r => r.Serial == reminded.Serial) is { DueBy: { } due } open => new(
                    $"{number}: {open.Serial} {(today > due ? "is late" : $"is due on {due:yyyy-MM-dd}")}, {about}",
                    string.Join("\n", Reminding.Said(ticket, open, today).Append($"It is about {number}, {about}."))
                ),
                _ => null,
            };
    }

    private static string Paper(PaperMailed mailed, string by, string number, string about) =>
        $"{(string.IsNullOrWhiteSpace(mailed.Says) ? "" : $"{mailed.Says.Trim()}\n\n")}"
        + $"With this comes the {mailed.Called()} of {number}, {about}, sent by {by}.";
}
