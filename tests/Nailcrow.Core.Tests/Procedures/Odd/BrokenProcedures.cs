namespace Nailcrow.Core.Tests.Procedures;

/// <summary>Changes that somebody could make with the best of intentions, and that lose data, a drive or a machine.</summary>
internal static class BrokenProcedures
{
    public static IReadOnlyList<Oddity> All => [.. BrokenPulls.All, .. BrokenSwaps.All, .. BrokenEnds.All, .. BrokenWays.All];
}
