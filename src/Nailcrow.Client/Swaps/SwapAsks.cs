using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Leaving;

namespace Nailcrow.Client.Swaps;

/// <param name="Procedure">Which procedure; left out, the one that is for this model.</param>
/// <param name="At">When it was made, where that is told later; left out, now.</param>
/// <param name="Because">Why a run that is under way is left for it; it stands in the record. Not needed where none is, or for a recovery.</param>
public sealed record SheetAsk(string? Procedure = null, DateTimeOffset? At = null, string? Because = null);

public sealed record LightAsk(bool On);

/// <summary>What a run that is under way may be left for, recoveries first.</summary>
public sealed record OtherSheets(IReadOnlyList<OtherSheet> Sheets);
