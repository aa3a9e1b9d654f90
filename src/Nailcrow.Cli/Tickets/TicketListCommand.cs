using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Client;
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
        var stage = Said.OneOf<Stage>("--stage", "Only those in this stage.", "stage");
        var engineer = Said.Optional("--engineer", "Only those of this engineer.", "ENGINEER");
        var asset = Said.Optional("--asset", "Only those of this appliance.");
        var find = Said.Optional("--find", "A ticket, an asset number, a serial or its last characters.", "TEXT");
        var before = new Option<long?>("--before") { Description = "The next page: only numbers below this.", HelpName = "NUMBER" };
        var limit = new Option<int>("--limit")
        {
            Description = "How many on a page, 1 to 200.",
            HelpName = "COUNT",
            DefaultValueFactory = _ => 50,
        };
        return new Command("tickets", "Open tickets, newest first, each with its danger and what to do next.")
        {
            mine,
            all,
            stage,
            engineer,
            asset,
            find,
            before,
            limit,
        }.Does(async call =>
        {
            var who = call.Get(mine) ? call.Session?.Name : call.Get(engineer);
            var wanted = call.Get(stage);
            bool? ended = call.Get(all) || wanted is Stage.Closed or Stage.Cancelled || call.Get(find) is not null ? null : false;
            var page = await call.Client.TicketsAsync(
                new(ended, wanted, who, call.Get(asset), call.Get(find), call.Get(before), call.Get(limit)),
                call.Ct
            );
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
                    if (page.Next is { } next)
                        screen.Line($"[dim]more: --before {next}[/]");
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
