namespace Nailcrow.Client.Tickets;

/// <param name="Procedure">Which procedure; left out, the one that is for this model.</param>
public sealed record SheetAsk(string? Procedure = null);

public sealed record LightAsk(bool On);
