using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>
/// Where no mark of a bay can be had: a drive is taken out on purpose, to be read, on a lead's written word and from an array that can spare
/// whichever it is. One that is not the right one goes straight back, and is no near miss.
/// </summary>
public static class TrialPull
{
    /// <summary>On whose word, and what they wrote; null where marks say which bay it is.</summary>
    internal static string? AllowedBy(Ticket ticket) =>
        ticket
            .Interrupted.SelectMany(i => i.Run.Visits.Select(v => (i.Sheet, Visit: v)))
            .Concat(ticket is { Sheet: { } sheet, Run: { } run } ? run.Visits.Select(v => (Sheet: sheet, Visit: v)) : [])
            .LastOrDefault(v => v.Sheet.Step(v.Visit.Step)?.Gate == GateFact.BayEstablished)
            .Visit
            is { Overruled: true } word
            ? $"{word.By}: {word.Said}"
            : null;

    /// <summary>The member that the array cannot spare, as a sentence; null where whichever drive comes out is one that it can.</summary>
    internal static string? NotSpared(Ticket ticket, RunSheet sheet) =>
        ticket.Latest is not { } now ? "nobody has looked at the array."
        : now.Arrays.FirstOrDefault(a => a.Name == sheet.Array) is not { } array
            ? $"the bay goes by a lead's word alone, and the last look has nothing of {sheet.Array}."
        : now.Holding(array).FirstOrDefault(b => BayVerdict.For(now, b).NeedsALead()) is { } bay
            ? $"the bay goes by a lead's word alone, so that any drive may come out, and {array.Name} cannot spare bay {bay.Label}: "
                + BayVerdict.For(now, bay).Reason
        : null;
}
