using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps;

/// <summary>Something that no sheet knows of was moved to get at the machine (a cable, a screen, a neighbour's plug), or is back as it was.</summary>
public sealed record MovedAside(string What, bool Back = false) : FactBody
{
    public override string Told() => Back ? $"Back as it was: {What}" : $"Moved aside: {What}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Lead];

    public override string? Problem(Ticket ticket) =>
        string.IsNullOrWhiteSpace(What) ? "Say what was moved, so that whoever puts it back knows it." : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var isMeant = ticket.Aside.FindIndex(a => string.Equals(a.Trim(), What.Trim(), StringComparison.OrdinalIgnoreCase));
        return Back
            ? isMeant < 0
                ? ticket.Raise(stamp, "aside", $"{stamp.By} put '{What}' back, and nobody had said that it was moved.")
                : ticket with
                {
                    Aside = ticket.Aside.RemoveAt(isMeant),
                }
            : isMeant < 0
                ? ticket with
                {
                    Aside = ticket.Aside.Add(What.Trim()),
                }
                : ticket;
    }
}
