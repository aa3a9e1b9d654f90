using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Tickets;

/// <summary>What is waiting.</summary>
internal static class TicketListCommand
{
    public static Command Build()
    {
        var mine = new Option<bool>("--mine") { Description = "Only those assigned to you." };
        var all = new Option<bool>("--all") { Description = "Closed and cancelled ones as well." };
        var before = new Option<long?>("--before") { Description = "The next page: only numbers below this.", HelpName = "NUMBER" };
        var narrowing = new Narrowing(TicketOrder.Newest);
        var command = new Command("tickets", "Open tickets, each with its danger and what to do next.") { mine, all, before };
        return narrowing
            .On(command)
            .Does(async call =>
            {
                var asked = narrowing.Asked(call);
                // A search goes through what is closed as well, and so does a stage that is closed.
                bool? ended = call.Get(all) || asked.Stage is Stage.Closed or Stage.Cancelled || asked.Find is not null ? null : false;
                var who = call.Get(mine) ? call.Session?.Name : asked.Engineer;
                var page = await call.Client.TicketsAsync(asked with { Ended = ended, Engineer = who, Before = call.Get(before) }, call.Ct);
                call.Show(
                    page,
                    ContractJson.Default.TicketPage,
                    screen =>
                    {
                        if (page.Tickets.Count == 0)
                            screen.Line("No such ticket.");
                        else
                            screen.Table(
                                ["ticket", "stage", "margin", "appliance", "site", "bay", "engineer", "next"],
                                page.Tickets.Select(Row)
                            );
                        Narrowing.TellMore(screen, asked.Order, page.Next, page.Count);
                    }
                );
            });
    }

    private static string[] Row(TicketLine line) =>
        [
            $"[bold]{TicketNumber.Text(line.Number)}[/]",
            Words.Of(line.Stage) + (line.HoldReason is null ? "" : ", on hold") + (line.Escalated ? ", [bold]escalated[/]" : ""),
            Danger(line.Margin),
            Screen.Safe(line.Asset),
            Screen.Safe(line.Site),
            Screen.Safe(line.Bay ?? "?"),
            Screen.Safe(line.Engineer ?? "nobody"),
            Screen.Safe($"{line.Next.Who}: {line.Next.Say}"),
        ];

    /// <summary>The number, and a word for those that need one.</summary>
    internal static string Danger(int? margin) =>
        margin switch
        {
            null => "[dim]not known[/]",
            < 0 => "[bold red]lost[/]",
            0 => "[bold red]0 none[/]",
            _ => $"{margin}",
        };
}
