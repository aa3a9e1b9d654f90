using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Cli.Tickets;

/// <summary>Everything that was recorded, in order of arrival.</summary>
internal static class JournalCommand
{
    // A table's cell, not a page of writing; --json has it whole.
    private const int MostShown = 96;

    public static Command Build()
    {
        var ticket = Said.Ticket();
        return new Command("journal", "All its entries in order of arrival, with their hashes.") { ticket }.Does(async call =>
        {
            var (entries, told) = (new List<Entry>(), new List<string>());
            for (long? after = 0; after is { } at; )
            {
                var page = await call.Client.JournalAsync(call.Get(ticket), at, call.Ct);
                entries.AddRange(page.Entries);
                told.AddRange(page.Told ?? page.Entries.Select(e => e.Body.Told()));
                after = page.Next;
            }
            call.Show(
                new JournalPage(entries, null, Told: told),
                ContractJson.Default.JournalPage,
                screen =>
                    screen.Table(
                        ["seq", "happened (UTC)", "by", "kind", "what", "hash"],
                        entries.Zip(told, (entry, says) => Row(entry, says, screen.IsPiped ? int.MaxValue : MostShown))
                    )
            );
        });
    }

    private static string[] Row(Entry entry, string told, int most)
    {
        var late = entry.RecordedAt - entry.Happened > TimeSpan.FromMinutes(2) ? "*" : "";
        return
        [
            $"{entry.Seq}",
            $"{entry.Happened.UtcDateTime:MM-dd HH:mm:ss}{late}",
            Screen.Safe(entry.By),
            Screen.Safe(EntryKinds.Of(entry.Body)),
            entry.Body is Unreadable
                ? $"[bold]{Screen.Safe(told)}[/] {Screen.Safe(Short(entry.BodyAsWritten().GetRawText(), most))}"
                : Screen.Safe(Short(told, most)),
            $"[dim]{entry.Hash[..8]}[/]",
        ];
    }

    private static string Short(string text, int most) => text.Length <= most ? text : text[..most] + "…";
}
