namespace Nailcrow.Core.Swaps.Seen;

/// <summary>How much an array holds, as the machine's own screen said it.</summary>
/// <param name="Bytes">Usable bytes.</param>
/// <param name="Step">The step that asked for it.</param>
public sealed record SpaceSeen(DateTimeOffset At, long Bytes, string By, string Step);
