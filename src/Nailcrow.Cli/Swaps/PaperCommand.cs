using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Swaps;

internal static class PaperCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        var into = Said.Optional("--into", "Where it goes. Default: T-1042.pdf here.", "FILE");
        return new Command("paper", "The run sheet as a PDF, with boxes and blanks to fill in by hand.") { ticket, into }.Does(async call =>
        {
            var number = call.Get(ticket);
            var path = call.Get(into) ?? $"{TicketNumber.Text(number)}.pdf";
            await Fetched.IntoAsync(path, file => call.Client.PaperAsync(number, file, call.Ct), call.Ct);
            call.Screen.Line(
                $"{Screen.Safe(path)} is written. What was filled in is entered at {call.Service}tickets/{number}/paper, or with 'nailcrow run answer'."
            );
        });
    }
}
