namespace Nailcrow.Core.Tickets.Moves;

/// <summary>The open tickets of one turn, as far as they were asked for.</summary>
/// <param name="Count">How many there are in all, counted no further than a list counts.</param>
/// <param name="Tickets">What comes first on top, <see cref="Planning.Priority"/>.</param>
public sealed record WaitingGroup(Turn Turn, int Count, IReadOnlyList<TicketLine> Tickets);
