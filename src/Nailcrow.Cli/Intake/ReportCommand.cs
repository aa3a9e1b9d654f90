using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Intake;

namespace Nailcrow.Cli.Intake;

internal static class ReportCommand
{
    public static Command Build()
    {
        var asset = Said.Text("ASSET", "The appliance's asset number.");
        var symptom = Said.Text("SYMPTOM", "What was seen, in a sentence.");
        var bay = Said.Optional("--bay", "The bay, if it is known.");
        var serial = Said.Optional("--serial", "The drive's serial, if it is known.");
        var job = Said.OneOf<JobKind>("--job", "fault: it failed. early: it works but will fail. Default fault.", "kind of job");
        var since = new Option<DateTimeOffset?>("--since") { Description = "Since when, as 2026-03-01T08:00Z.", HelpName = "TIME" };
        return new Command("report", "Report a fault: it becomes a ticket, or joins the one that is open for the same drive.")
        {
            asset,
            symptom,
            bay,
            serial,
            job,
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
                    At: call.Get(Globals.At)
                ),
                call.Ct
            );
            call.Show(receipt, receipt.Seq == 1 ? "a new ticket." : "kept as evidence on the ticket that is open for this drive.");
        });
    }
}
