using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Reports;

/// <summary>What the customer was advised, for them to decide on.</summary>
internal static class ProposalCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        var into = Said.Optional("--into", "Write it there as a PDF, with room to decide and to sign.", "FILE");
        return new Command("proposal", "What the customer was advised on a ticket, for them to decide on.") { ticket, into }.Does(
            async call =>
            {
                var number = call.Get(ticket);
                if (call.Get(into) is not { } path)
                {
                    var proposal = await call.Client.ProposalAsync(number, call.Ct);
                    call.Show(proposal, ContractJson.Default.Proposal, screen => Draw(screen, proposal));
                    return;
                }
                await Fetched.IntoAsync(path, file => call.Client.ProposalPaperAsync(number, file, call.Ct), call.Ct);
                call.Screen.Line($"{Screen.Safe(path)} is written.");
            }
        );
    }

    private static string Decision(AdviceGiven advice) =>
        advice.Decision is { } decided ? $"Decided: {Screen.Safe(decided)}" : "Not decided yet.";

    private static void Draw(Screen screen, Proposal proposal)
    {
        screen.Line($"[bold]{TicketNumber.Text(proposal.Ticket)}  What we propose[/]");
        foreach (var line in proposal.Heading)
            screen.Line(Screen.Safe(line));
        foreach (var seen in proposal.Seen)
            screen.Line($"  seen       {Screen.Safe(seen)}");
        foreach (var advice in proposal.Advised)
            screen.Line($"  advised    {Screen.Safe(advice.Text.TrimEnd('.'))}. {Decision(advice)}");
    }
}
