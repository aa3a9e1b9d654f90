using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Reports;

/// <summary>What a lead let go on against the sheet, each with its reason; of every sheet of the ticket, recoveries among them.</summary>
internal static class OverruledSteps
{
    public static IEnumerable<ReportLine> Of(IReadOnlyList<Entry> told)
    {
        var sheets = new Dictionary<Guid, RunSheet>();
        foreach (var entry in told)
            if (entry.Body is SheetCompiled made)
                sheets[made.Sheet.Id] = made.Sheet;
            else if (entry.Body is StepOverruled overruled)
                yield return new(
                    entry.Happened,
                    entry.By,
                    $"{sheets.GetValueOrDefault(overruled.Sheet)?.Step(overruled.Step)?.Say ?? overruled.Step} Overruled: {overruled.Reason}"
                );
    }
}
