using System.CommandLine;
using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Cli.Returns;

internal static class PartCommands
{
    public static Command Build() =>
        new("part", "The replacement, and what else was used.") { Reserve(), Issue(), GiveUp(), TakeBack(), Wiped(), Used() };

    private static Command Reserve()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The replacement's serial."));
        var model = Said.Optional("--model", "What it is, as its label says. Not needed for a drive in stock.");
        var size = Said.Optional("--size", "Bytes, or a number with GB, TB, GiB or TiB. Not needed for a drive in stock.");
        var depot = Said.Optional("--depot", "Where it lies. Not needed for a drive in stock.", "NAME");
        var because = Said.Optional("--because", "Why it is taken although something speaks against it.", "REASON");
        return new Command("reserve", "Set a replacement aside; one that does not fit is refused, what speaks against one is said.")
        {
            ticket,
            serial,
            model,
            size,
            depot,
            because,
        }.Does(async call =>
        {
            var asked = call.Get(serial);
            var isSaid = call.Get(model) is not null && call.Get(size) is not null && call.Get(depot) is not null;
            var listed = isSaid ? null : await InStockAsync(call, asked);
            await call.WriteAsync(
                call.Get(ticket),
                new PartReserved(
                    asked,
                    call.Get(model) ?? listed?.Model ?? throw NotInStock(asked, "--model, --size and --depot"),
                    call.Get(size) is { } text ? Size.Parse(text) : listed?.Bytes ?? throw NotInStock(asked, "--size"),
                    call.Get(depot) ?? listed?.Depot ?? throw NotInStock(asked, "--depot"),
                    OverruledBecause: call.Get(because)
                ),
                $"{asked} is reserved."
            );
        });
    }

    /// <summary>What a depot has by this serial; null where nobody knows it.</summary>
    /// <exception cref="Refusal">It is somewhere else, with where.</exception>
    private static async Task<DriveLine?> InStockAsync(Call call, string serial)
    {
        var known = (await call.Client.FindDrivesAsync(serial, call.Ct)).Drives.FirstOrDefault(d =>
            string.Equals(d.Serial, serial, StringComparison.OrdinalIgnoreCase)
        );
        return known switch
        {
            { Depot: null, With: { } holder } => throw IsElsewhere(known.Serial, $"with {holder}"),
            { Depot: null, Asset: { } asset } => throw IsElsewhere(known.Serial, $"in bay {known.Bay} of {asset}"),
            _ => known,
        };
    }

    private static Refusal IsElsewhere(string serial, string where) =>
        new($"{serial} is in no depot: it is {where}. Take another part; 'nailcrow stock receive {serial}' takes in one that is back.");

    private static UsageProblem NotInStock(string serial, string toSay) => new($"{serial} is not in stock; say {toSay}.");

    private static Command Used()
    {
        var (ticket, supply) = (Said.Ticket(), Said.Text("SUPPLY", "What was used up: \"drive carrier\", \"M3 screws\"."));
        var count = new Argument<int>("COUNT") { Description = "How many; 1 where nothing is said.", DefaultValueFactory = _ => 1 };
        var from = Said.Optional("--from", "Where it was taken: a depot, or \"van of tamsel\"; default: your own van.", "PLACE");
        var asNamed = new Option<bool>("--as-named") { Description = "It is new, and no other one that reads nearly the same." };
        return new Command("used", "Something without a serial was used up: a carrier, screws, a cable.")
        {
            ticket,
            supply,
            count,
            from,
            asNamed,
        }.Does(call =>
        {
            var used = new SuppliesUsed(call.Get(supply), call.Get(count), call.Get(from), call.Get(asNamed) ? true : null);
            return call.WriteAsync(call.Get(ticket), used, $"{used.Count:N0} {used.Supply} used.");
        });
    }

    private static Command Issue()
    {
        var ticket = Said.Ticket();
        var serial = Said.Optional("--serial", "Which one, where several are reserved; default: the first that is not issued.", "SERIAL");
        var to = Said.Optional("--to", "Who takes it; default: the ticket's engineer.", "NAME");
        return new Command("issue", "Hand a reserved replacement to the engineer.") { ticket, serial, to }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var holder = call.Get(to) ?? view.Engineer ?? throw new UsageProblem("The ticket has no engineer yet; say --to NAME.");
            var part = call.Get(serial) is { } named ? named : Next(view);
            await call.WriteAsync(view.Number, new PartIssued(part, holder), $"{part} is with {holder}.");
        });
    }

    private static string Next(TicketView view)
    {
        var offered =
            view.Moves.FirstOrDefault(m => m is { Move: Move.IssuePart, About: not null })
            ?? view.Moves.First(m => m.Move == Move.IssuePart);
        return offered.About ?? throw new Refusal($"{offered.WhyNot} 'nailcrow part reserve' sets one aside.");
    }

    private static Command GiveUp()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The part that is no replacement after all."));
        var why = Said.OneOf<NoReplacement>("--why", "What is wrong with it.", "reason");
        why.Required = true;
        var note = Said.Optional("--note", "What was seen.", "TEXT");
        return new Command("give-up", "A part does not go in: another one takes its place, and this one goes back.")
        {
            ticket,
            serial,
            why,
            note,
        }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new PartGivenUp(call.Get(serial), call.Get(why) ?? NoReplacement.DeadOnArrival, call.Get(note)),
                $"{call.Get(serial)} is given up; stores reserves another."
            )
        );
    }

    private static Command TakeBack()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive or part that is back."));
        var depot = Said.Needed("--depot", "Which depot it is in.", "NAME");
        var shelf = Said.Optional("--shelf", "Where it lies there.", "NAME");
        return new Command("take-back", "Take a part back into a depot over the counter; no box was announced.")
        {
            ticket,
            serial,
            depot,
            shelf,
        }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new PartTakenBack(call.Get(serial), call.Get(depot)!, call.Get(shelf)),
                $"{call.Get(serial)} is back in {call.Get(depot)}."
            )
        );
    }

    private static Command Wiped()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive that was wiped."));
        var method = Said.Text("METHOD", "How: overwritten once, sanitize command, degaussed.");
        return new Command("wiped", "Write down that a drive's old data is gone, and how.") { ticket, serial, method }.Does(call =>
            call.WriteAsync(call.Get(ticket), new DriveWiped(call.Get(serial), call.Get(method)), $"{call.Get(serial)} is wiped.")
        );
    }
}
