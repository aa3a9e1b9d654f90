namespace Nailcrow.Core.Swaps.Following.Leaving;

/// <summary>A sheet that a run may be left for.</summary>
/// <param name="Procedure">Its procedure's id.</param>
/// <param name="IsRecovery">It is followed to its end, and then the run goes on; any other one takes the run's place.</param>
/// <param name="WasLeft">The run came from it: taken up again, it goes on where it was left.</param>
/// <param name="WhyNot">Why it cannot be followed now; null where it can.</param>
public sealed record OtherSheet(string Procedure, string Title, bool IsRecovery, bool WasLeft, string? WhyNot);
