namespace Nailcrow.Core.Swaps.Seen;

/// <summary>Who looked at the machine, and when.</summary>
/// <param name="On">The other ticket it was on; null where it was this one.</param>
public sealed record LookTaken(DateTimeOffset At, string By, long? On = null);
