using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Core.Intake;

namespace Nailcrow.Cli.Tickets;

internal static class EvidenceCommand
{
    public static Command Build()
    {
        var (ticket, text) = (Said.Ticket(), Said.Text("TEXT", "What was seen."));
        var kind = Said.OneOf<EvidenceKind>("--kind", "What kind it is; default symptom.", "kind of evidence");
        var bay = Said.Optional("--bay", "Which bay it speaks of.");
        var serial = Said.Optional("--serial", "Which drive it speaks of.");
        var count = new Option<int?>("--count") { Description = "How often it was seen.", HelpName = "COUNT" };
        return new Command("evidence", "Add what speaks for or against a drive.") { ticket, text, kind, bay, serial, count }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new EvidenceSeen(
                    call.Get(kind) ?? EvidenceKind.Symptom,
                    call.Session?.Name ?? "",
                    call.Get(text),
                    call.Get(bay),
                    call.Get(serial),
                    call.Get(count)
                ),
                "evidence kept."
            )
        );
    }
}
