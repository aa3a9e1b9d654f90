using System.Text;
using System.Text.Json;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Fuzz;

/// <summary>A ticket on which somebody who may do everything writes what an input says, a line each; what is taken is read back.</summary>
internal static class MadeUpTicket
{
    private static readonly DateTimeOffset Now = new(2026, 11, 25, 8, 0, 0, TimeSpan.Zero);
    private static readonly Actor Anybody = new("ilka", [.. Enum.GetValues<Role>()]);

    private static readonly TicketRecord Reported = With(
        TicketRecord.Of(1001, []),
        new FaultReported(
            "FSC-1",
            "CH-1",
            "Brackmere B12",
            "Corrin Trust",
            "Corrin",
            "Hall",
            JobKind.Fault,
            "Amber lamp",
            "2",
            "CDR000001",
            null
        ),
        Now.AddDays(-1)
    );

    public static void Take(byte[] input)
    {
        var record = Reported;
        foreach (var line in Encoding.UTF8.GetString(input).Split('\n').Take(20))
            if (Read(line) is { } ask)
                record = Written(record, ask);
        TicketView.Of(record, new(), Anybody, Now);
    }

    private static EntryAsk? Read(string line)
    {
        try
        {
            return JsonSerializer.Deserialize(line, ContractJson.Default.EntryAsk);
        }
        catch (Exception e) when (e is JsonException or NotSupportedException) // the latter where no kind is said
        {
            return null; // a sentence
        }
    }

    private static TicketRecord Written(TicketRecord record, EntryAsk ask)
    {
        var intent = new Intent(ask.Id ?? Guid.CreateVersion7(Now), ask.At ?? Now, 0, Anybody, ask.Body) { FromOutside = true };
        if (record.Find(intent.Id) is not null || Ruling.On(record, intent, Now) is not Ruling.Accepted)
            return record;
        var entry = record.Next(intent, Now);
        if (entry.Body is Unreadable)
            return record; // refused as such
        var stored = new StoredEntry(
            entry.Id,
            1001,
            entry.Seq,
            entry.At,
            entry.RecordedAt,
            entry.By,
            KindOf(entry),
            entry.Text,
            entry.Hash
        );
        var again = EntryReader.Read(stored);
        if (again.Body is Unreadable)
            throw new InvalidOperationException($"It was taken, and cannot be read again: {entry.Text}");
        var next = record.With(entry);
        // Told anew from what is stored it is the same ticket.
        if (TicketRecord.Of(1001, [.. record.Arrived, again]).Ticket.Stage != next.Ticket.Stage)
            throw new InvalidOperationException($"Told anew it stands elsewhere: {entry.Text}");
        return next;
    }

    private static string KindOf(Entry entry) => entry.BodyAsWritten().GetProperty("kind").GetString() ?? "";

    private static TicketRecord With(TicketRecord record, EntryBody body, DateTimeOffset at) =>
        record.With(record.Next(new(Guid.CreateVersion7(at), at, 0, Anybody, body), at));
}
