using System.CommandLine;
using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Returns;

namespace Nailcrow.Cli.Returns.Stock;

/// <summary>What is done with a part in hand. Serials are arguments, or lines from a scanner.</summary>
internal static class StockMoves
{
    private static Argument<string[]> Serials() =>
        new("SERIAL")
        {
            Description = "Serials as on the labels. None: one after the other is read from the input, as a scanner sends them.",
            Arity = ArgumentArity.ZeroOrMore,
            DefaultValueFactory = _ => [],
        };

    public static Command Receive()
    {
        var serials = Serials();
        var (depot, van, shelf) = StockPlace.Options();
        var model = Said.Optional("--model", "What it is, as its label says. Only for what is new here.");
        var size = Said.Optional("--size", "Bytes, or a number with GB, TB, GiB or TiB. Only for what is new here.");
        var asRead = new Option<bool>("--as-read")
        {
            Description = "The label was read again: it is no other serial that reads nearly the same.",
        };
        var newDepot = StockPlace.NewDepot();
        return new Command("receive", "Take parts in, box after box: each is matched to what waits for it.")
        {
            serials,
            depot,
            van,
            shelf,
            model,
            size,
            asRead,
            newDepot,
        }.Does(async call =>
        {
            var to = StockPlace.Of(call, depot, van, shelf);
            var bytes = call.Get(size) is { } text ? Size.Parse(text) : (long?)null;
            await EachAsync(
                call,
                call.Get(serials),
                serial =>
                    call.Client.ReceiveAsync(
                        new(Guid.CreateVersion7(), serial, to, call.Get(model), bytes, call.Get(asRead), call.Get(newDepot)),
                        call.Ct
                    )
            );
        });
    }

    public static Command Put()
    {
        var serials = Serials();
        var (depot, van, shelf) = StockPlace.Options();
        var newDepot = StockPlace.NewDepot();
        return new Command("move", "Put parts on another shelf, into another depot or a van.")
        {
            serials,
            depot,
            van,
            shelf,
            newDepot,
        }.Does(async call =>
        {
            var to = StockPlace.Of(call, depot, van, shelf);
            await EachAsync(
                call,
                call.Get(serials),
                async serial =>
                    (await call.Client.MovePartsAsync(new(Guid.CreateVersion7(), [serial], to, call.Get(newDepot)), call.Ct)).Parts[0]
            );
        });
    }

    public static Command Issue()
    {
        var serials = Serials();
        var to = Said.Needed("--to", "Who takes it.", "NAME");
        return new Command("issue", "Hand parts to somebody: for the ticket each is set aside for, else into their van.")
        {
            serials,
            to,
        }.Does(call =>
            EachAsync(
                call,
                call.Get(serials),
                serial => call.Client.HandOutAsync(new(Guid.CreateVersion7(), serial, call.Said(to)), call.Ct)
            )
        );
    }

    public static Command Count()
    {
        var serials = Serials();
        var (depot, van, shelf) = StockPlace.Options();
        var book = new Option<bool>("--book") { Description = "Also write down that what is recorded elsewhere is here." };
        return new Command("count", "Count a shelf, a depot or a van by scanning what is there; differences are told.")
        {
            serials,
            depot,
            van,
            shelf,
            book,
        }.Does(async call =>
        {
            var at = StockPlace.Of(call, depot, van, shelf);
            var scanned = call.Get(serials) is { Length: > 0 } typed ? typed : [.. Scanned()];
            var answer = await call.Client.CountAsync(new(Guid.CreateVersion7(), at, scanned, call.Get(book)), call.Ct);
            call.Show(answer, ContractJson.Default.CountAnswer, screen => StockTold.Count(screen, answer));
        });
    }

    public static Command Wiped()
    {
        var (serial, method) = (
            Said.Text("SERIAL", "The drive on the shelf."),
            Said.Text("METHOD", "How: overwritten once, sanitize command, degaussed.")
        );
        return new Command("wiped", "Write down that a used drive on a shelf was wiped, and how.") { serial, method }.Does(async call =>
            Told(call, await call.Client.WipeAsync(new(Guid.CreateVersion7(), call.Get(serial), call.Get(method)), call.Ct))
        );
    }

    public static Command WriteOff()
    {
        var (serial, because) = (
            Said.Text("SERIAL", "The part that nobody finds."),
            Said.Text("REASON", "How it was lost, and what was done to find it.")
        );
        var onIt = Said.Needed("--on-it", "What was on it: whose data, or none.", "TEXT");
        return new Command("write-off", "Write a part off that nobody finds; a lead does.") { serial, because, onIt }.Does(async call =>
            Told(
                call,
                await call.Client.WriteOffAsync(new(Guid.CreateVersion7(), call.Get(serial), call.Get(because), call.Said(onIt)), call.Ct)
            )
        );
    }

    /// <summary>One after the other; one that has to be asked about does not stop the rest, and is told at the end.</summary>
    private static async Task EachAsync(Call call, string[] typed, Func<string, Task<ReceiveAnswer>> does)
    {
        var (done, asked) = (0, 0);
        foreach (var serial in typed.Length > 0 ? typed : Scanned())
        {
            ReceiveAnswer answer;
            try
            {
                answer = await does(serial);
            }
            catch (ApiProblem no) when ((int)no.Status == 422)
            {
                answer = new(serial, no.Message, true, null, null);
            }
            Show(call, answer);
            (done, asked) = answer.Asks ? (done, asked + 1) : (done + 1, asked);
        }
        if (asked > 0)
            throw new Refusal($"{done} done, {asked} not: see above.");
        if (done == 0)
            throw new UsageProblem("No serial was given: type them behind the command, or send them as lines.");
    }

    private static void Told(Call call, ReceiveAnswer answer)
    {
        if (answer.Asks)
            throw new Refusal(answer.Says);
        Show(call, answer);
    }

    private static void Show(Call call, ReceiveAnswer answer) =>
        call.Show(
            answer,
            ContractJson.Default.ReceiveAnswer,
            screen => screen.Line($"{(answer.Asks ? "[bold]?[/]" : " ")} {Screen.Safe(Says(answer))}")
        );

    private static string Says(ReceiveAnswer answer) =>
        answer.NearDepot is null ? answer.Says : $"{answer.Says} With --new-depot it is another one.";

    private static IEnumerable<string> Scanned()
    {
        while (Console.In.ReadLine() is { } line)
            if (line.Trim() is { Length: > 0 } serial)
                yield return serial;
    }
}
