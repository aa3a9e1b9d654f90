using Nailcrow.Core.Procedures;

namespace Nailcrow.Core.Swaps.Following.Leaving;

/// <summary>A sheet that was left for a recovery, and how far it had been followed.</summary>
public sealed record Interrupted(RunSheet Sheet, Run Run);
