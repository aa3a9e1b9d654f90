using Nailcrow.Core.Swaps;

namespace Nailcrow.Client.Swaps;

/// <summary>The drives a ticket swaps: those that are chosen, and those that could be, the worst first.</summary>
public sealed record DrivesView(long Ticket, IReadOnlyList<string> Chosen, IReadOnlyList<DriveInTurn> InTurn);
