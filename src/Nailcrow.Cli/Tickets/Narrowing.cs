using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Tickets;

/// <summary>The options with which any list of tickets is narrowed, ordered and paged.</summary>
internal sealed class Narrowing(TicketOrder first)
{
    private readonly Option<Stage?> _stage = Said.OneOf<Stage>("--stage", "Only those in this stage.", "stage");
    private readonly Option<string?> _engineer = Said.Optional("--engineer", "Only those of this engineer.", "ENGINEER");
    private readonly Option<string?> _asset = Said.Optional("--asset", "Only those of this appliance.");
    private readonly Option<string?> _find = Said.Optional(
        "--find",
        "A ticket, or any part of an asset number, a serial, a site or a customer.",
        "TEXT"
    );
    private readonly Option<string?> _site = Said.Optional("--site", "Only those at sites with this in their name.", "TEXT");
    private readonly Option<string?> _customer = Said.Optional("--customer", "Only those of customers with this in their name.", "TEXT");
    private readonly Option<DangerSought?> _danger = Said.OneOf<DangerSought>("--danger", "Only those that stand so badly.", "danger");
    private readonly Option<bool> _overdue = new("--overdue") { Description = "Only those whose next promise is over." };
    private readonly Option<TicketOrder?> _order = Said.OneOf<TicketOrder>(
        "--order",
        $"Default {Core.Terms.Words.Of(first)}.",
        "known order"
    );
    private readonly Option<int> _skip = new("--skip")
    {
        Description = "The next page where they do not come newest first.",
        HelpName = "COUNT",
    };
    private readonly Option<int> _limit = new("--limit")
    {
        Description = "How many on a page, 1 to 200.",
        HelpName = "COUNT",
        DefaultValueFactory = _ => 50,
    };

    public Command On(Command command)
    {
        foreach (
            Option option in new Option[] { _stage, _engineer, _asset, _find, _site, _customer, _danger, _overdue, _order, _skip, _limit }
        )
            command.Options.Add(option);
        return command;
    }

    public TicketSearch Asked(Call call) =>
        new(
            Stage: call.Get(_stage),
            Engineer: call.Get(_engineer),
            Asset: call.Get(_asset),
            Find: call.Get(_find),
            Limit: call.Get(_limit),
            Site: call.Get(_site),
            Customer: call.Get(_customer),
            Danger: call.Get(_danger),
            Overdue: call.Get(_overdue),
            Order: call.Get(_order) ?? first,
            Skip: call.Get(_skip)
        );

    /// <summary>How to ask for the next page, and how many there are in all where they were counted to the end.</summary>
    public static void TellMore(Screen screen, TicketOrder order, long? next, int? count)
    {
        if (next is not null)
            screen.Line(
                $"[dim]{(count is { } all and < TicketPage.MostCounted ? $"{all} in all; " : "")}more: "
                    + $"{(order == TicketOrder.Newest ? "--before" : "--skip")} {next}[/]"
            );
    }
}
