using System.CommandLine;
using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Returns.Stock;

/// <summary>What stores looks at: shelves, parts, and whether everything balances.</summary>
internal static class StockCommands
{
    public static Command Build() =>
        new("stock", "Every part accounted for: what lies where, what comes and goes.")
        {
            Show(),
            List(),
            Part(),
            Balance(),
            StockMoves.Receive(),
            StockMoves.Put(),
            StockMoves.Issue(),
            StockMoves.Count(),
            StockMoves.Wiped(),
            StockMoves.WriteOff(),
            StockPapers.Labels(),
            StockPapers.PickingList(),
            SupplyCommands.Build(),
        };

    private static Command Show()
    {
        var depot = Said.Optional("--depot", "Only this one.", "NAME");
        return new Command("show", "What to pick, what comes, what is late, what to order, what lies on the shelves.") { depot }.Does(
            async call =>
            {
                var desk = await call.Client.StoresAsync(call.Get(depot), call.Ct);
                call.Show(desk, ContractJson.Default.StoresDesk, screen => StockTold.Desk(screen, desk));
            }
        );
    }

    private static Command List()
    {
        var (depot, van, shelf) = StockPlace.Options();
        return new Command("list", "The parts in one place.") { depot, van, shelf }.Does(async call =>
        {
            var place = StockPlace.Of(call, depot, van, shelf);
            var rest = (string?)null;
            var first = true;
            do
            {
                var page = await call.Client.PartsAsync(place, rest, call.Ct);
                if (first || page.Parts.Count > 0)
                    call.Show(
                        page,
                        ContractJson.Default.PartPage,
                        screen => StockTold.Parts(screen, page.Parts, $"Nothing is {place.Where()}.")
                    );
                (rest, first) = (page.Next, false);
            } while (rest is not null && !call.Json);
        });
    }

    private static Command Part()
    {
        var serial = Said.Text("SERIAL", "Its whole serial.");
        return new Command("part", "One part's whole line: through whose hands it went.") { serial }.Does(async call =>
        {
            var line = await call.Client.PartAsync(call.Get(serial), call.Ct);
            call.Show(line, ContractJson.Default.PartLineView, screen => StockTold.Line(screen, line));
        });
    }

    private static Command Balance() =>
        new Command("balance", "Every part that ever came in is somewhere: how many with whom, and what is open.").Does(async call =>
        {
            var balance = await call.Client.BalanceAsync(call.Ct);
            call.Show(
                balance,
                ContractJson.Default.Balance,
                screen =>
                {
                    screen.Table(
                        ["with", "parts", "in", "out"],
                        balance.Holders.Select(h => new[] { StockTold.Many(h.Kind), $"{h.Parts:N0}", $"{h.In:N0}", $"{h.Out:N0}" })
                    );
                    screen.Line(
                        balance.Difference == 0
                            ? $"[bold]{balance.Parts:N0} parts, difference 0.[/]"
                            : $"[bold]! {balance.Parts:N0} parts, difference {balance.Difference:N0}: that is a fault of the ledger;[/] "
                                + "'nailcrow admin verify' says more."
                    );
                    screen.Line($"{balance.OnTheWay:N0} on the way, {balance.Contradictions:N0} that contradict themselves.");
                    foreach (var supply in balance.Supplies)
                        screen.Line(
                            $"{Screen.Safe(supply.Name)}: {supply.Came:N0} came, {supply.Found:N0} found, {supply.Used:N0} used, "
                                + $"{supply.Missing:N0} missing, {supply.Held:N0} there"
                                + (supply.Difference == 0 ? "" : $" [bold]! difference {supply.Difference:N0}: a fault of the ledger[/]")
                        );
                    foreach (var open in balance.Open)
                        screen.Line(
                            $"  {Screen.Safe(open.Serial)}  {Screen.Safe(open.Says)}, since {Telling.Clock(open.Since, null)}"
                                + (open.Ticket is { } ticket ? $" [dim]{TicketNumber.Text(ticket)}[/]" : "")
                        );
                    if (balance.OnTheWay + balance.Contradictions > balance.Open.Count)
                        screen.Line("  [dim]the oldest are told[/]");
                }
            );
            if (balance.Difference != 0)
                throw new Refusal("The ledger does not balance.");
        });
}
