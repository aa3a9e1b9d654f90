using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Ending;

namespace Nailcrow.Cli.Tickets;

internal static class CloseCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        var otherwise = Said.OneOf<ClosedOtherwise>("--otherwise", "As a lead: close although the array is not whole.", "way to close");
        var reason = Said.Optional("--reason", "Needed with --otherwise.", "TEXT");
        return new Command("close", "Close it; what is still missing is told by name.") { ticket, otherwise, reason }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new TicketClosed(call.Get(otherwise), call.Get(reason)),
                call.Get(otherwise) is { } way ? $"closed as {Words.Of(way)}." : "closed."
            )
        );
    }
}
