namespace Nailcrow.Core.Swaps.Following.Answering;

/// <summary>Who agreed to what, and for what price, as it was written down at a step.</summary>
/// <param name="By">Who wrote it down.</param>
public sealed record Agreement(string Says, DateTimeOffset At, string By);
