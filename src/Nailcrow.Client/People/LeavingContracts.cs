using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Client.People;

/// <summary>What somebody has, that is somebody else's before they leave.</summary>
/// <param name="Tickets">Open ones they lead; at most 200.</param>
/// <param name="Parts">In their hands and in their van; at most 200 of each.</param>
/// <param name="Supplies">In their van, each with its count, as "carrier screw, 12".</param>
public sealed record PersonHolds(IReadOnlyList<TicketLine> Tickets, IReadOnlyList<StoredPart> Parts, IReadOnlyList<string> Supplies)
{
    public bool Nothing => Tickets.Count == 0 && Parts.Count == 0 && Supplies.Count == 0;
}

/// <param name="To">An engineer.</param>
/// <param name="Note">What they should know; at most 4,000 characters.</param>
public sealed record HandOverAsk(string To, string? Note = null);

/// <param name="Refused">Tickets that stay, each with why, as "T-1042: ...".</param>
public sealed record HandedOverAll(string From, string To, IReadOnlyList<long> Tickets, IReadOnlyList<string> Refused);
