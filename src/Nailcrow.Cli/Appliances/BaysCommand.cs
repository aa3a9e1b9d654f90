using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Appliances;

/// <summary>The bays of a machine, drawn, with what pulling each would do.</summary>
internal static class BaysCommand
{
    public static Command Build()
    {
        var of = Said.Text("TICKET|ASSET", "A ticket: as last recorded. An appliance: as the machine says now.");
        var reasons = new Option<bool>("--reasons") { Description = "List each bay's verdict with its reason." };
        return new Command("bays", "Draw the bays, with what pulling each would do now.") { of, reasons }.Does(async call =>
        {
            var (view, drawing, target) = await FindAsync(call, call.Get(of));
            call.Show(
                view,
                ContractJson.Default.BaysView,
                screen =>
                {
                    BayMap.Draw(screen, view.Snapshot, view.Verdicts, drawing, target);
                    foreach (var gap in view.Snapshot.Gaps ?? [])
                        screen.Line($"  [bold]![/] not read: {Screen.Safe(gap)}");
                    if (view.LocatorOn == true)
                        screen.Line("  The locator light is on.");
                    if (call.Get(reasons))
                        foreach (var verdict in view.Verdicts)
                            screen.Line(
                                $"  bay {Screen.Safe(verdict.Bay), -3} {Words.Of(verdict.Verdict), -6} {Screen.Safe(verdict.Reason)}"
                            );
                }
            );
        });
    }

    private static async Task<(BaysView, IReadOnlyList<ChassisDrawing>?, string? Target)> FindAsync(Call call, string of)
    {
        if (TicketNumber.Parse(of) is not Parsed<long>.Ok(var number))
            return (await call.Client.BaysAsync(of, call.Ct), (await call.Client.ApplianceAsync(of, call.Ct)).Drawing, null);
        var ticket = await call.Client.TicketAsync(number, call.Ct);
        return ticket.Latest is { } latest
            ? (new(latest, ticket.Danger.Verdicts, ticket.LocatorOn), ticket.Drawing, ticket.Run?.Sheet.TargetBay ?? ticket.Report.Bay)
            : throw new Refusal(
                $"Nothing is known of the bays yet. 'nailcrow snapshot take {TicketNumber.Text(number)}' asks the machine, 'snapshot write' takes what you see."
            );
    }
}
