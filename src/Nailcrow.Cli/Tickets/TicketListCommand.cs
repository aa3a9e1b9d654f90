using System.CommandLine;
using Nailcrow.Cli.Shell;
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
        var stage = Said.OneOf<Stage>("--stage", "Only those in this stage.", "stage");
        var engineer = Said.Optional("--engineer", "Only those of this engineer.", "ENGINEER");
        var asset = Said.Optional("--asset", "Only those of this appliance.");
        var find = Said.Optional("--find", "A ticket, or any part of an asset number, a serial, a site or a customer.", "TEXT");
        var site = Said.Optional("--site", "Only those at sites with this in their name.", "TEXT");
        var customer = Said.Optional("--customer", "Only those of customers with this in their name.", "TEXT");
        var danger = Said.OneOf<DangerSought>("--danger", "Only those that stand so badly.", "danger");
        var overdue = new Option<bool>("--overdue") { Description = "Only those whose next promise is over." };
        var order = Said.OneOf<TicketOrder>("--order", "Default newest.", "known order");
        var skip = new Option<int>("--skip") { Description = "The next page where they do not come newest first.", HelpName = "COUNT" };
        var before = new Option<long?>("--before") { Description = "The next page: only numbers below this.", HelpName = "NUMBER" };
        var limit = new Option<int>("--limit")
        {
            Description = "How many on a page, 1 to 200.",
            HelpName = "COUNT",
            DefaultValueFactory = _ => 50,
        };
        return new Command("tickets", "Open tickets, each with its danger and what to do next.")
        {
            mine,
            all,
            stage,
            engineer,
            asset,
            find,
            site,
            customer,
            danger,
            overdue,
            order,
            skip,
            before,
            limit,
        }.Does(async call =>
        {
            var who = call.Get(mine) ? call.Session?.Name : call.Get(engineer);
            var wanted = call.Get(stage);
            bool? ended = call.Get(all) || wanted is Stage.Closed or Stage.Cancelled || call.Get(find) is not null ? null : false;
            var page = await call.Client.TicketsAsync(
                new(
                    ended,
                    wanted,
                    who,
                    call.Get(asset),
                    call.Get(find),
                    call.Get(before),
                    call.Get(limit),
                    call.Get(site),
                    call.Get(customer),
                    call.Get(danger),
                    call.Get(overdue) ? DateTimeOffset.MaxValue : null, // the service asks its own clock
                    call.Get(order) ?? TicketOrder.Newest,
                    call.Get(skip)
                ),
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
                        screen.Line(
                            $"[dim]{(page.Count is { } count and < TicketPage.MostCounted ? $"{count} in all; " : "")}more: "
                                + $"{(call.Get(order) is null or TicketOrder.Newest ? "--before" : "--skip")} {next}[/]"
                        );
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
