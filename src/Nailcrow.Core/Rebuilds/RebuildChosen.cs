using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Rebuilds;

/// <summary>Where the machine lets one choose how much is copied, what was chosen; and what was agreed about load while it runs.</summary>
/// <param name="Because">Who agreed to what: no backups until it is over, or that users feel it; null where nothing was.</param>
public sealed record RebuildChosen(RebuildCopies Copies, string? Because = null) : FactBody
{
    public override string Told() => $"The rebuild copies {What}, as was chosen.{(Because is { } agreed ? $" Agreed: {agreed}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Lead];

    private string What => Copies == RebuildCopies.UsedSpace ? "only the space that is used" : "everything";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { RebuildChosen = this };
}
