using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Tickets;
using Nailcrow.Core.Swaps.Seen;

namespace Nailcrow.Cli.Swaps;

internal static class LightCommands
{
    public static Command Build() => new("light", "The locator light of the chassis.") { Switch(true), Switch(false) };

    private static Command Switch(bool on)
    {
        var word = on ? "on" : "off";
        var ticket = Said.Ticket();
        var byHand = new Option<bool>("--by-hand") { Description = "You did it yourself; the machine is not asked." };
        return new Command(word, $"Switch it {word}.") { ticket, byHand }.Does(async call =>
        {
            if (call.Get(byHand))
                await call.WriteAsync(call.Get(ticket), new LocatorSwitched(on), $"the light was switched {word} by hand.");
            else
                call.Show(await call.Client.SwitchLightAsync(call.Get(ticket), on, call.Ct), $"the light is {word}.");
        });
    }
}
