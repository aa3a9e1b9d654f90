using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Appliances;

internal static class DriveCommands
{
    public static Command Build() => new("drive", "One drive, wherever it is.") { Find(), Show() };

    private static Command Find()
    {
        var text = Said.Text("TEXT", "A serial, or its last characters, at least four.");
        return new Command("find", "Find drives by serial or its last characters.") { text }.Does(async call =>
        {
            var found = await call.Client.FindDrivesAsync(call.Get(text), call.Ct);
            call.Show(
                found,
                ContractJson.Default.DriveList,
                screen =>
                {
                    if (found.Drives.Count == 0)
                        screen.Line("No such drive is listed.");
                    else
                        screen.Table(
                            ["serial", "model", "size", "where", "hours"],
                            found.Drives.Select(d =>
                                new[]
                                {
                                    $"[bold]{Screen.Safe(d.Serial)}[/]",
                                    Screen.Safe(d.Model),
                                    Size.Both(d.Bytes),
                                    Screen.Safe(
                                        d.With is { } with ? $"with {with}"
                                        : d.Depot is { } depot ? $"depot {depot}"
                                        : $"{d.Asset}{(d.Bay is { } bay ? $", bay {bay}" : "")}"
                                    ),
                                    $"{d.Hours}",
                                }
                            )
                        );
                }
            );
        });
    }

    private static Command Show()
    {
        var serial = Said.Text("SERIAL", "Its whole serial.");
        return new Command("show", "Its whole life: bays, machines, hands, wipes.") { serial }.Does(async call =>
        {
            var life = await call.Client.DriveAsync(call.Get(serial), call.Ct);
            call.Show(
                life,
                ContractJson.Default.DriveLifeView,
                screen =>
                {
                    var listed = life.Listed is { } d ? $"  {Screen.Safe(d.Model)}, {Size.Both(d.Bytes)}" : "";
                    var ran = life.Listed?.Hours is { } hours ? $", {hours:N0} hours" : "";
                    screen.Line($"[bold]{Screen.Safe(life.Serial)}[/]{listed}{ran}");
                    if (life.Warranty is { } warranty)
                        screen.Line($"  warranty: {Screen.Safe(warranty)}");
                    foreach (var place in life.Places)
                        screen.Line($"  {(life.Places.Count > 1 ? "[bold]! two places:[/] " : "now   ")}{Screen.Safe(place)}");
                    foreach (var e in life.Events)
                        screen.Line(
                            $"  [dim]{Telling.Clock(e.At, null)}[/]  {Screen.Safe(e.Sentence)} [dim]{Screen.Safe(e.By)}, {TicketNumber.Text(e.Ticket)}[/]"
                        );
                }
            );
        });
    }
}
