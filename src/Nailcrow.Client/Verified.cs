namespace Nailcrow.Client;

/// <summary>What re-computing every chain found.</summary>
/// <param name="FirstBad">The first entry that is not what was written; null where all hold.</param>
public sealed record Verified(long Tickets, long Entries, string? FirstBad);

/// <summary>How many tickets the lists were made again from.</summary>
public sealed record Rebuilt(long Tickets);

/// <summary>An error as RFC 9457 tells it; the detail says what to do.</summary>
public sealed record Problem(string? Title, int? Status, string? Detail);
