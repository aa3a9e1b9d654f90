using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Ending;

/// <summary>A lead says, in writing, how a contradiction in the record is to be read.</summary>
public sealed record DiscrepancySettled(string Discrepancy, string How) : DecisionBody
{
    public override string Told() => $"Settled {Discrepancy}: {How}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Lead];

    public override bool MayFollowTheEnd() => true;

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now)
    {
        var open = ticket.Discrepancies.Where(d => d.IsOpen).Select(d => d.Id).ToList();
        if (!open.Contains(Discrepancy))
            return $"No open discrepancy '{Discrepancy}' here; open: {(open.Count == 0 ? "none" : string.Join(", ", open))}.";
        return string.IsNullOrWhiteSpace(How) ? "Say how it was settled; the report shows it." : null;
    }

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var found = ticket.Discrepancies.Find(d => d.Id == Discrepancy);
        return found is null
            ? ticket
            : ticket with
            {
                Discrepancies = ticket.Discrepancies.Replace(found, found with { SettledBy = stamp.By, Settlement = How }),
            };
    }
}
