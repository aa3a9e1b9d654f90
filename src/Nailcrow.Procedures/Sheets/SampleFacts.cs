using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Procedures.Sheets;

/// <summary>Made-up facts to try a procedure with, where there is no ticket: a fault, or whatever else the procedure is written for.</summary>
public static class SampleFacts
{
    public static SheetFacts For(Procedure procedure, ApplianceModel model, int drives = 1)
    {
        var labels = model.Labels().Take(drives).ToList();
        var facts = new SheetFacts(
            model,
            "FSC-0000",
            "CHASSIS-0001",
            "the site",
            "rack 1",
            "the array",
            [.. labels.Select((label, i) => new SheetDrive(label, $"OLD{i + 1:0000}X", $"disk{i}", $"NEW{i + 1:0000}Y"))],
            TicketFacts.Ordinary with
            {
                Drives = drives,
            }
        );
        return Tickets(drives)
                .Select(t =>
                    facts with
                    {
                        Ticket = t,
                        Drives =
                            t.Job == JobKind.Addition ? [.. facts.Drives.Select(d => d with { Serial = "", Name = null })] : facts.Drives,
                    }
                )
                .FirstOrDefault(f => procedure.AppliesTo.Holds(f.Of) == true)
            ?? facts;
    }

    private static IEnumerable<TicketFacts> Tickets(int drives) =>
        from job in Enum.GetValues<JobKind>()
        from help in new[] { SwapHelp.Helps, SwapHelp.TooManyLost }
        from tookOver in new[] { false, true }
        select TicketFacts.Ordinary with
        {
            Job = job,
            Help = help,
            SpareTookOver = tookOver,
            Drives = drives,
            Role =
                job == JobKind.Fault ? BayRole.Dropped
                : job == JobKind.Addition ? BayRole.Empty
                : BayRole.Member,
            Grows = job == JobKind.Growth,
        };
}
