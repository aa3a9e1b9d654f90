using System.CommandLine;
using System.Text.Json;
using Nailcrow.Cli.Shell;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Cli.Tickets;

/// <summary>Everything that was recorded, in order of arrival.</summary>
internal static class JournalCommand
{
    // A snapshot's body is twelve bays long; the list shows that there was one.
    private const int MostShown = 96;

    public static Command Build()
    {
        var ticket = Said.Ticket();
        return new Command("journal", "All its entries in order of arrival, with their hashes.") { ticket }.Does(async call =>
        {
            var entries = new List<Entry>();
            for (long? after = 0; after is { } at; )
            {
                var page = await call.Client.JournalAsync(call.Get(ticket), at, call.Ct);
                entries.AddRange(page.Entries);
                after = page.Next;
            }
            call.Show(
                new JournalPage(entries, null),
                ContractJson.Default.JournalPage,
                screen => screen.Table(["seq", "happened (UTC)", "by", "kind", "what", "hash"], entries.Select(Row))
            );
        });
    }

    private static string[] Row(Entry entry)
    {
        var body = entry.BodyAsWritten();
        var late = entry.RecordedAt - entry.Happened > TimeSpan.FromMinutes(2) ? "*" : "";
        return
        [
            $"{entry.Seq}",
            $"{entry.Happened.UtcDateTime:MM-dd HH:mm:ss}{late}",
            Screen.Safe(entry.By),
            Screen.Safe(EntryKinds.Of(entry.Body)),
            entry.Body is Unreadable unreadable
                ? $"[bold]cannot be read by this version[/] {Screen.Safe($"({unreadable.Why}) {What(body)}")}"
                : Screen.Safe(What(body)),
            $"[dim]{entry.Hash[..8]}[/]",
        ];
    }

    private static string What(JsonElement body)
    {
        if (body.ValueKind != JsonValueKind.Object)
            return "";
        var told = string.Join(
            ", ",
            body.EnumerateObject()
                .Where(p => p.Name is not ("kind" or "sheet"))
                .Select(p => p.Value.ValueKind is JsonValueKind.Object or JsonValueKind.Array ? p.Name : $"{p.Name} {p.Value}")
        );
        return told.Length <= MostShown ? told : told[..MostShown] + "…";
    }
}
