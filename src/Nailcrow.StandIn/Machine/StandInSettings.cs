namespace Nailcrow.StandIn.Machine;

/// <param name="Seed">Makes the serials; two stand-ins with different seeds hold different drives.</param>
/// <param name="RebuildTakes">How long a rebuild takes from start to end, in accelerated time.</param>
/// <param name="Expansion">Whether a second enclosure with a storage unit of its own hangs at it, whose drives and arrays have the same names.</param>
internal sealed record StandInSettings(int Seed, TimeSpan RebuildTakes, bool Expansion = false);
