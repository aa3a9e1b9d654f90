using Nailcrow.Core.Appliances;
using Nailcrow.Core.Rebuilds;

namespace Nailcrow.Appliances;

/// <summary>What a machine says of itself at one moment.</summary>
/// <param name="Progress">How far each array's rebuild is, for arrays that have one running.</param>
/// <param name="LocatorOn">Whether the chassis blinks; null where the machine does not say.</param>
public sealed record MachineLook(Snapshot Snapshot, IReadOnlyList<Reading> Progress, bool? LocatorOn);
