using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Tickets;
using Nailcrow.Core.Swaps;

namespace Nailcrow.Cli.Swaps;

/// <summary>Which drives a ticket swaps, where it is more than the reported one.</summary>
internal static class DrivesCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        var bays = new Argument<string[]>("BAY") { Description = "Bay labels, in the order they are done; the worst first where some have failed.", Arity = ArgumentArity.OneOrMore };
        return new Command("drives", "Choose the drives this ticket swaps, in order: several that failed, or bigger ones one by one.") { ticket, bays }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var now = view.Latest ?? throw new Refusal("Nothing is known of the bays yet; take a snapshot first.");
            var serials = call.Get(bays).Select(b => now.BayLabelled(b)?.Serial ?? throw new Refusal($"Bay '{b}' holds no drive with a serial in the last snapshot.")).ToList();
            await call.WriteAsync(call.Get(ticket), new DrivesChosen(serials), $"{serials.Count} drives are chosen: {string.Join(", ", call.Get(bays).Zip(serials, (b, s) => $"bay {b} {s}"))}.");
        });
    }
}
