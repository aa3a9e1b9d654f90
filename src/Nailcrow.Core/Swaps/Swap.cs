using System.Collections.Immutable;

namespace Nailcrow.Core.Swaps;

/// <summary>A wrong drive that was pulled, recognised and put straight back.</summary>
public sealed record NearMiss(string Bay, string Serial, DateTimeOffset At, string By);

/// <summary>Something that says "this is the one": a lamp, the software's name, a label.</summary>
/// <param name="Attempt">0 until a wrong drive was pulled; a mark from an attempt that failed does not count again.</param>
public sealed record MarkSeen(string Mark, int Attempt);

/// <summary>One drive out and one drive in, in one bay, with both serials.</summary>
/// <param name="WrongOut">A drive that is out by mistake at this moment.</param>
public sealed record Swap(
    string? Bay,
    string? OutSerial,
    DateTimeOffset? PulledAt,
    string? InSerial,
    DateTimeOffset? InsertedAt,
    string? WrongOut,
    string? ScannedPart,
    DateTimeOffset? StartedByHandAt,
    ImmutableList<NearMiss> NearMisses,
    ImmutableList<MarkSeen> ChassisMarks,
    ImmutableList<MarkSeen> BayMarks
)
{
    public static readonly Swap NotBegun = new(null, null, null, null, null, null, null, null, [], [], []);

    public bool HasBegun => PulledAt is not null;

    public int Attempt => NearMisses.Count;
}
