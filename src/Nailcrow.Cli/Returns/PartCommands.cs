using System.CommandLine;
using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Tickets;
using Nailcrow.Core.Returns;

namespace Nailcrow.Cli.Returns;

internal static class PartCommands
{
    public static Command Build() => new("part", "The replacement.") { Reserve(), Issue() };

    private static Command Reserve()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The replacement's serial."));
        var model = Said.Needed("--model", "What it is, as its label says.");
        var size = Said.Needed("--size", "Bytes, or a number with GB, TB, GiB or TiB.");
        var depot = Said.Needed("--depot", "Where it lies.", "NAME");
        return new Command("reserve", "Set a replacement aside; one that is too small is refused.") { ticket, serial, model, size, depot }.Does(call =>
            call.WriteAsync(call.Get(ticket), new PartReserved(call.Get(serial), call.Get(model)!, Size.Parse(call.Get(size)!), call.Get(depot)!), $"{call.Get(serial)} is reserved."));
    }

    private static Command Issue()
    {
        var ticket = Said.Ticket();
        var to = Said.Optional("--to", "Who takes it; default: the ticket's engineer.", "NAME");
        return new Command("issue", "Hand the reserved replacement to the engineer.") { ticket, to }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var part = view.Part ?? throw new Refusal("No replacement is reserved; 'nailcrow part reserve' does that.");
            var holder = call.Get(to) ?? view.Engineer ?? throw new UsageProblem("The ticket has no engineer yet; say --to NAME.");
            await call.WriteAsync(view.Number, new PartIssued(part.Serial, holder), $"{part.Serial} is with {holder}.");
        });
    }
}
