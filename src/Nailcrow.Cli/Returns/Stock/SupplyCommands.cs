using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Client.Returns;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Returns.Stock;

/// <summary>What has no serial and is counted: how many of it are where.</summary>
internal static class SupplyCommands
{
    public static Command Build() =>
        new("supply", "What has no serial and is counted: drive carriers, screws, cables, labels.")
        {
            List(),
            Show(),
            Came(),
            Moved(),
            Used(),
            Counted(),
        };

    private static Command List()
    {
        var depot = Said.Optional("--depot", "Only what lies in this one.", "NAME");
        var van = Said.Optional("--van", "Only what this person has in their van.", "NAME");
        return new Command("list", "How many of each are where, and what to order.") { depot, van }.Does(async call =>
        {
            var with = call.Get(depot) is null && call.Get(van) is null ? null : Place(call, depot, van);
            var supplies = await call.Client.SuppliesAsync(with, call.Ct);
            call.Show(supplies, ContractJson.Default.IReadOnlyListSupplyStock, screen => Told(screen, supplies, with));
        });
    }

    private static Command Show()
    {
        var name = Name();
        return new Command("show", "One supply: how many are where, and what came, went and was used.") { name }.Does(async call =>
        {
            var view = await call.Client.SupplyAsync(call.Get(name), call.Ct);
            call.Show(
                view,
                ContractJson.Default.SupplyView,
                screen =>
                {
                    Told(screen, [view.Now], null);
                    if (view.Earlier > 0)
                        screen.Line($"[dim]{view.Earlier:N0} earlier lines are not told here.[/]");
                    foreach (var line in view.Told)
                        screen.Line($"  {Telling.Clock(line.At, null)}  {Screen.Safe(line.Says)} [dim]{Screen.Safe(line.By)}[/]");
                }
            );
        });
    }

    private static Command Came()
    {
        var (name, count, note, asNamed, newDepot) = (Name(), Count(1), Note(), AsNamed(), StockPlace.NewDepot());
        var (depot, van) = Places("they are put");
        return new Command("came", "So many came in.") { name, count, depot, van, note, asNamed, newDepot }.Does(call =>
            WriteAsync(
                call,
                new(Id(), call.Get(name), SupplyWay.Came, call.Get(count), To: Place(call, depot, van).Place()),
                note,
                asNamed,
                newDepot
            )
        );
    }

    private static Command Moved()
    {
        var (name, count, note) = (Name(), Count(1), Note());
        var from = Said.Needed("--from", "Where they are: a depot, or \"van of ilka\".", "PLACE");
        var to = Said.Needed("--to", "Where they are put: a depot, or \"van of ilka\".", "PLACE");
        var newDepot = StockPlace.NewDepot();
        return new Command("move", "So many go to another depot or van.") { name, count, from, to, note, newDepot }.Does(call =>
            WriteAsync(
                call,
                new(Id(), call.Get(name), SupplyWay.Moved, call.Get(count), call.Said(from), call.Said(to)),
                note,
                newDepot: newDepot
            )
        );
    }

    private static Command Used()
    {
        var (name, count, note) = (Name(), Count(1), Note());
        var (depot, van) = Places("they were");
        return new Command("used", "So many are gone, on no ticket: used up, broken, thrown away. 'part used' says it on a ticket.")
        {
            name,
            count,
            depot,
            van,
            note,
        }.Does(call => WriteAsync(call, new(Id(), call.Get(name), SupplyWay.Used, call.Get(count), Place(call, depot, van).Place()), note));
    }

    private static Command Counted()
    {
        var (name, count, note, asNamed, newDepot) = (Name(), Count(0), Note(), AsNamed(), StockPlace.NewDepot());
        var (depot, van) = Places("you counted");
        return new Command("count", "So many are there, whatever was recorded; the difference is told.")
        {
            name,
            count,
            depot,
            van,
            note,
            asNamed,
            newDepot,
        }.Does(call =>
            WriteAsync(
                call,
                new(Id(), call.Get(name), SupplyWay.Counted, call.Get(count), Place(call, depot, van).Place()),
                note,
                asNamed,
                newDepot
            )
        );
    }

    private static async Task WriteAsync(
        Call call,
        SupplyAsk ask,
        Option<string?> note,
        Option<bool>? asNamed = null,
        Option<bool>? newDepot = null
    )
    {
        var answer = await call.Client.CountSuppliesAsync(
            ask with
            {
                Note = call.Get(note),
                AsNamed = asNamed is not null && call.Get(asNamed),
                NewDepot = newDepot is not null && call.Get(newDepot),
            },
            call.Ct
        );
        if (answer.Asks)
            throw new Refusal(
                answer.Near is not null ? $"{answer.Says} With --as-named it is a new one."
                : answer.NearDepot is not null ? $"{answer.Says} With --new-depot it is another one."
                : answer.Says
            );
        call.Show(answer, ContractJson.Default.SupplyAnswer, screen => screen.Line(Screen.Safe(answer.Says)));
    }

    private static void Told(Screen screen, IReadOnlyList<SupplyStock> supplies, Holder? with)
    {
        if (supplies.Count == 0)
        {
            screen.Line(Screen.Safe(with is null ? "Nothing is counted yet." : $"Nothing that is counted is {with.Where()}."));
            return;
        }
        screen.Table(
            ["what", "there", "where", "used lately"],
            supplies.Select(s =>
                new[]
                {
                    Screen.Safe(s.Name),
                    $"[bold]{s.Held:N0}[/]",
                    Screen.Safe(string.Join(", ", s.Where.Select(w => $"{w.Count:N0} {w.Holder.Place()}"))),
                    s.Lately == 0 ? "" : $"{s.Lately:N0}",
                }
            )
        );
        if (with is null)
            foreach (var order in supplies.Select(s => s.Order).OfType<Core.Returns.Stores.OrderLine>())
                screen.Line($"Order [bold]{order.Order} {Screen.Safe(order.Model)}[/]: {Screen.Safe(order.Says)}");
    }

    private static Guid Id() => Guid.CreateVersion7();

    private static Holder Place(Call call, Option<string?> depot, Option<string?> van) =>
        (call.Get(depot), call.Get(van)) switch
        {
            ({ } name, null) => Holder.OfPlace(name),
            (null, { } name) => new(HolderKind.Van, name),
            _ => throw new UsageProblem("Say where: one of --depot NAME and --van NAME."),
        };

    private static Argument<string> Name() => Said.Text("SUPPLY", "What it is called: \"drive carrier\", \"M3 screws\".");

    private static Argument<int> Count(int least) => new("COUNT") { Description = $"How many, from {least}." };

    private static (Option<string?> Depot, Option<string?> Van) Places(string what) =>
        (Said.Optional("--depot", $"In which depot {what}.", "NAME"), Said.Optional("--van", $"In whose van {what}.", "NAME"));

    private static Option<string?> Note() => Said.Optional("--note", "What has to be said of it.", "TEXT");

    private static Option<bool> AsNamed() => new("--as-named") { Description = "It is new, and no other one that reads nearly the same." };
}
