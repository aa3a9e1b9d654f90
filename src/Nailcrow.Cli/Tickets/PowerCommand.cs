using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Core.Swaps.Seen;

namespace Nailcrow.Cli.Tickets;

/// <summary>The machine went off or on: a power cut, somebody's decision, or so it was found.</summary>
internal static class PowerCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        var change = Said.OneOf<PowerChange>(
            "--change",
            "found-off, power-cut, switched-off, restarted or switched-on; default found-off.",
            "change of power"
        );
        var allowedBy = Said.Optional("--allowed-by", "Who allowed it; for what was found, who knows of it.", "NAME");
        var because = Said.Optional("--because", "Why, if that is known.", "TEXT");
        return new Command("power", "Say that the machine was off, went off, or is on again, and who allowed it.")
        {
            ticket,
            change,
            allowedBy,
            because,
        }.Does(call =>
        {
            var told = new PowerTold(call.Get(change) ?? PowerChange.FoundOff, call.Get(allowedBy), call.Get(because));
            return call.WriteAsync(call.Get(ticket), told, $"{told.Told()}.");
        });
    }
}
