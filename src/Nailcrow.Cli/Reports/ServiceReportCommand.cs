using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Reports;

/// <summary>What was done on a ticket, told from its journal.</summary>
internal static class ServiceReportCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        var into = Said.Optional("--into", "Write it there as a PDF.", "FILE");
        return new Command("service-report", "What was done on a ticket: for the customer, and for later.") { ticket, into }.Does(
            async call =>
            {
                var number = call.Get(ticket);
                if (call.Get(into) is not { } path)
                {
                    var report = await call.Client.ReportOfAsync(number, call.Ct);
                    call.Show(report, ContractJson.Default.ServiceReport, screen => Draw(screen, report));
                    return;
                }
                await Fetched.IntoAsync(path, file => call.Client.ReportPaperAsync(number, file, call.Ct), call.Ct);
                call.Screen.Line($"{Screen.Safe(path)} is written.");
            }
        );
    }

    private static void Draw(Screen screen, ServiceReport report)
    {
        screen.Line($"[bold]{TicketNumber.Text(report.Ticket)}  {Screen.Safe(report.Title)}[/]");
        foreach (var line in report.Heading)
            screen.Line(Screen.Safe(line));
        foreach (var part in report.Parts)
        {
            screen.Line($"\n[bold]{Screen.Safe(part.Name)}[/]");
            foreach (var line in part.Lines)
            {
                var at = line.At is { } when ? $"{when.UtcDateTime:yyyy-MM-dd HH:mm}Z" : "";
                var by = line.By is { } person ? $" [dim]({Screen.Safe(person)})[/]" : "";
                screen.Line($"  [dim]{at, -18}[/]{Screen.Safe(line.Says)}{by}");
            }
        }
    }
}
