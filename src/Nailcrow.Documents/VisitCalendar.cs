using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Documents;

/// <summary>An engineer's visits as an iCalendar feed (RFC 5545), which any calendar can subscribe to.</summary>
public static class VisitCalendar
{
    /// <param name="visits">Tickets that have a planned visit.</param>
    /// <param name="links">Where a ticket's page is.</param>
    public static string Of(string engineer, IEnumerable<TicketLine> visits, Func<long, Uri> links)
    {
        var calendar = new Calendar { ProductId = "-//Nailcrow//Visits//EN" };
        calendar.AddProperty("X-WR-CALNAME", $"Nailcrow: {engineer}");
        foreach (var line in visits)
            if (line is { VisitFrom: { } from, VisitTo: { } to })
                calendar.Events.Add(Visit(line, from, to, links(line.Number)));
        return new CalendarSerializer().SerializeToString(calendar) ?? throw new InvalidOperationException("The calendar came out empty.");
    }

    private static CalendarEvent Visit(TicketLine line, DateTimeOffset from, DateTimeOffset to, Uri link) =>
        new()
        {
            // The same visit, moved, keeps its id, so that a calendar moves it as well.
            Uid = $"visit-{line.Number}@nailcrow",
            DtStamp = new CalDateTime(line.ChangedAt.UtcDateTime, "UTC"),
            DtStart = new CalDateTime(from.UtcDateTime, "UTC"),
            DtEnd = new CalDateTime(to.UtcDateTime, "UTC"),
            Summary = $"{TicketNumber.Text(line.Number)} {line.Asset}: {line.Symptom}",
            Location = line.Site,
            Description = $"{line.Danger}\n{line.Next.Who}: {line.Next.Say}",
            Url = link,
        };
}
