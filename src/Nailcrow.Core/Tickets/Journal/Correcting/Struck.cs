using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Journal.Correcting;

/// <summary>
/// An entry of which nothing was so. It leaves no trace in the ticket; an answer of a run stays on the run's way, since the sheet
/// went on from there, and what it said of the world is taken out.
/// </summary>
internal sealed record Struck(EntryBody Was, string Because) : FactBody
{
    public override string Told() => Was.Told();

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        Was is StepAnswered ? WithoutNearMiss(ticket, Was.Fold(ticket, stamp)) : ticket;

    /// <summary>The drive that was said to be a wrong one never left its bay: nobody held it, and nobody nearly lost data.</summary>
    private Ticket WithoutNearMiss(Ticket before, Ticket after) =>
        after.Swap.NearMisses is not [.., var miss] || after.Swap.NearMisses.Count == before.Swap.NearMisses.Count
            ? after
            : after with
            {
                Swap = after.Swap with { NearMisses = after.Swap.NearMisses.Replace(miss, miss with { NotSo = Because }) },
                Custody = after.Custody.Since(miss.Serial, ReadAt(before.Run) ?? miss.At),
            };

    private static DateTimeOffset? ReadAt(Run? run) => run?.Visits.FindLast(v => v.Branch == Words.Of(SerialOutcome.Different))?.At;
}
