namespace Nailcrow.Client.Swaps;

/// <param name="Procedure">Which procedure; left out, the one that is for this model.</param>
/// <param name="At">When it was made, where that is told later; left out, now.</param>
public sealed record SheetAsk(string? Procedure = null, DateTimeOffset? At = null);

public sealed record LightAsk(bool On);
