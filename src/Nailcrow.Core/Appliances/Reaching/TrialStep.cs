namespace Nailcrow.Core.Appliances.Reaching;

/// <summary>One step of trying to reach a machine.</summary>
/// <param name="What">What was asked for.</param>
/// <param name="Ok">False for the one it ended with.</param>
/// <param name="Came">What answered, or what was made of it; why not, where it ended here.</param>
/// <param name="Milliseconds">How long it took.</param>
public sealed record TrialStep(string What, bool Ok, string Came, long Milliseconds);
