using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Core.Reports;

/// <summary>What was recorded wrongly, what was so instead, and who said so.</summary>
public static class PutRight
{
    internal static IEnumerable<ReportLine> Of(TicketRecord record) =>
        record
            .Arrived.Where(e => e.Body is EntryCorrected { Entry: var wrong } && record.Corrections.Of(wrong)?.Id == e.Id)
            .OrderBy(e => e.Happened)
            .Select(e => new ReportLine(e.Happened, e.By, $"{Sentence(record, e)}"));

    /// <summary>What an entry of a journal says, as one sentence; of a correction also what it puts right.</summary>
    public static string Sentence(TicketRecord record, Entry entry)
    {
        if (entry.Body is not EntryCorrected correction || record.Find(correction.Entry) is not { } wrong)
            return entry.Body.Told();
        var so =
            correction.IsNotSo() ? "was not so"
            : correction is { Instead: { } instead, HappenedAt: { } then } ? $"was: {instead.Told()}, at {EntryTold.Clock(then)}"
            : correction.Instead is { } only ? $"was: {only.Told()}"
            : $"happened at {EntryTold.Clock(correction.HappenedAt ?? wrong.Happened)}";
        return $"Entry {wrong.Seq}, \"{wrong.Body.Told()}\", {so}. {correction.Because}";
    }
}
