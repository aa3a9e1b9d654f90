using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Intake;

internal static class ReportCommand
{
    public static Command Build()
    {
        var asset = Said.Text("ASSET", "The appliance's asset number.");
        var symptom = Said.Text("SYMPTOM", "What was seen, in a sentence.");
        var bay = Said.Optional("--bay", "The bay, if it is known.");
        var serial = Said.Optional("--serial", "The drive's serial, if it is known.");
        var job = Said.OneOf<JobKind>(
            "--job",
            "fault: it failed. early: it works but will fail. growth: bigger drives go in. addition: one more goes into an empty bay. Default fault.",
            "kind of job"
        );
        var array = Said.Optional("--array", "For an addition: the array it is for, where the machine has several.", "NAME");
        var since = new Option<DateTimeOffset?>("--since") { Description = "Since when, as 2026-03-01T08:00Z.", HelpName = "TIME" };
        return new Command("report", "Report a fault: it becomes a ticket, or joins the one that is open for the same drive.")
        {
            asset,
            symptom,
            bay,
            serial,
            job,
            array,
            since,
        }.Does(async call =>
        {
            var receipt = await call.Client.ReportAsync(
                new FaultAsk(
                    call.Get(asset),
                    call.Get(symptom),
                    call.Get(job) ?? JobKind.Fault,
                    call.Get(bay),
                    call.Get(serial),
                    call.Get(since),
                    At: call.Get(Globals.At),
                    Array: call.Get(array)
                ),
                call.Ct
            );
            call.Show(receipt, receipt.Seq == 1 ? "a new ticket." : "kept as evidence on the ticket that is open for this drive.");
            if (receipt.Seq != 1 || call.Json)
                return;
            foreach (var beside in (await call.Client.TicketAsync(receipt.Ticket, call.Ct)).Beside)
                call.Screen.Line(
                    $"Also open there: {TicketNumber.Text(beside.Number)}, {Screen.Safe(beside.Symptom)}. If it is the same: "
                        + $"nailcrow ticket join {TicketNumber.Text(receipt.Ticket)} {TicketNumber.Text(beside.Number)}"
                );
        });
    }
}
