using System.Collections.Immutable;

namespace Nailcrow.Core.Swaps;

/// <summary>A wrong drive that was pulled, recognised and put straight back.</summary>
/// <param name="Entry">The entry that it was put back with.</param>
/// <param name="NotSo">Who said that it was none after all, and why; it is a near miss as long as nobody did.</param>
/// <param name="OnPurpose">Who allowed that it is taken out to be read, and what they wrote; then it is a trial pull and no near miss.</param>
public sealed record NearMiss(
    string Bay,
    string Serial,
    DateTimeOffset At,
    string By,
    Guid Entry = default,
    string? NotSo = null,
    string? OnPurpose = null
);

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

    public bool HasBegun => (PulledAt ?? InsertedAt) is not null;

    /// <summary>With what is known of machine, bay and near misses, and no drive moved.</summary>
    internal Swap AsBefore() => NotBegun with { NearMisses = NearMisses, ChassisMarks = ChassisMarks, BayMarks = BayMarks };

    /// <summary>How often a wrong drive came out; what was recorded as one by mistake was none.</summary>
    public int Attempt => NearMisses.Count(n => n.NotSo is null);
}
