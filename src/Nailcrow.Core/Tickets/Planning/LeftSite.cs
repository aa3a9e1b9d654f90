using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Planning;

/// <summary>Somebody left the site. Where the work is not done, the ticket goes back to planning with what was learnt.</summary>
/// <param name="Learnt">What the next visit has to know: who opens, what was in the way, what the customer wants first.</param>
public sealed record LeftSite(VisitEnd Ended, string? Learnt = null) : FactBody
{
    public override string Told() => $"Left the site: {EntryTold.Said(Words.Of(Ended))}{(Learnt is { } learnt ? $". {learnt}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Lead];

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        if (SiteVisits.There(ticket, stamp.By) is null)
            return ticket.SiteVisits.FindLast(v => v.Engineer == stamp.By) switch
            {
                // The ticket ended, or was handed on, while they were there: now they say when they left.
                { Ended: VisitEnd.NotSaid } last => ticket with
                {
                    SiteVisits = ticket.SiteVisits.Replace(last, last with { LeftAt = stamp.At, Ended = Ended, Learnt = Learnt }),
                },
                { Ended: VisitEnd.HandedOver } => ticket, // they had left with that
                _ => ticket.Raise(
                    stamp,
                    "visit",
                    $"{stamp.By} left the site; when they came is not on record. Say when, with an arrival of that time."
                ),
            };
        var left = SiteVisits.Ended(ticket, v => v.Engineer == stamp.By, stamp.At, Ended, Learnt);
        // The visit that was planned has been.
        return left.IsOnSite ? left : left with { Visit = null };
    }
}
