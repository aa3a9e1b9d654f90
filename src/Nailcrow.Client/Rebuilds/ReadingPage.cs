using Nailcrow.Core.Rebuilds;

namespace Nailcrow.Client.Rebuilds;

/// <summary>Readings of a rebuild, oldest first.</summary>
/// <param name="Next">Pass as <c>after</c> for the next page; null at the end.</param>
public sealed record ReadingPage(IReadOnlyList<Reading> Readings, int? Next);
