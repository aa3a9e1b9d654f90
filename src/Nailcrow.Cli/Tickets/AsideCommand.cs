using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Core.Swaps;

namespace Nailcrow.Cli.Tickets;

/// <summary>What was moved to get at the machine, and that it is back.</summary>
internal static class AsideCommand
{
    public static Command Build()
    {
        var (ticket, what) = (Said.Ticket(), Said.Text("WHAT", "What was moved: a cable, a screen, a neighbour's plug."));
        var back = new Option<bool>("--back") { Description = "It is back as it was." };
        return new Command("aside", "Say what you moved to get at the machine; the ticket closes when it is back.")
        {
            ticket,
            what,
            back,
        }.Does(call =>
        {
            var moved = new MovedAside(call.Get(what), call.Get(back));
            return call.WriteAsync(call.Get(ticket), moved, $"{moved.Told()}.");
        });
    }
}
