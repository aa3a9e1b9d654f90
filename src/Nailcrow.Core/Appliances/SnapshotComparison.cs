using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances;

/// <summary>One bay that is not as it was.</summary>
/// <param name="OtherDrive">True when the bay holds another drive, or none; false when only role or health moved.</param>
public sealed record BayChange(string Bay, bool OtherDrive, string Sentence);

/// <summary>What differs between two snapshots of one appliance, bay by bay in the order of the first.</summary>
public static class SnapshotComparison
{
    public static IReadOnlyList<BayChange> Between(Snapshot before, Snapshot after)
    {
        var labels = before.Bays.Concat(after.Bays).Select(b => b.Label).Distinct(StringComparer.OrdinalIgnoreCase);
        return [.. labels.Select(l => Change(l, before, after)).OfType<BayChange>()];
    }

    /// <summary>Null when another drive is in each of these bays and in no other bay; else why not.</summary>
    /// <param name="explained">Bays in which somebody put a drive meanwhile, on another ticket.</param>
    public static string? OtherThanOnly(IReadOnlyList<string> bays, IReadOnlySet<string> explained, Snapshot before, Snapshot after)
    {
        var moved = Between(before, after).Where(c => c.OtherDrive).ToList();
        var strays = moved.Where(c => !bays.Contains(c.Bay, StringComparer.OrdinalIgnoreCase) && !explained.Contains(c.Bay)).ToList();
        if (strays.Count > 0)
            return $"Not only {(bays.Count == 0 ? "what was meant to" : $"bay {string.Join(" and ", bays)}")} changed: "
                + $"{string.Join(" ", strays.Select(c => c.Sentence))}";
        return bays.FirstOrDefault(b => !moved.Exists(c => string.Equals(c.Bay, b, StringComparison.OrdinalIgnoreCase))) is { } same
            ? $"Bay {same} holds the same drive before and after."
            : null;
    }

    private static BayChange? Change(string label, Snapshot then, Snapshot now)
    {
        var (before, after) = (then.BayLabelled(label), now.BayLabelled(label));
        if (before is null || after is null)
            return OnlyOnce(label, before, after, then, now);
        if (IsUntold(before) || IsUntold(after))
            return null; // where nobody said what was there, nobody knows that it changed
        if (!SameDrive(before.Serial, after.Serial))
            return new(label, true, $"Bay {label} held {before.Serial ?? "nothing"} and now holds {after.Serial ?? "nothing"}.");
        if (before.Role != after.Role)
            return new(label, false, $"Bay {label} was {Words.Of(before.Role)} and is now {Words.Of(after.Role)}.");
        return before.Health == after.Health
            ? null
            : new(label, false, $"Bay {label} read {Words.Of(before.Health)} and now reads {Words.Of(after.Health)}.");
    }

    /// <summary>
    /// A machine that shows more than before, or names its bays anew, has not changed its drives: an empty bay that is listed now, and a
    /// drive that is there under another name where its old name is gone.
    /// </summary>
    private static BayChange? OnlyOnce(string label, Bay? before, Bay? after, Snapshot then, Snapshot now)
    {
        var (there, elsewhere) = (before ?? after, before is null ? then : now);
        if (there?.Serial is not { } serial)
            return null;
        if (elsewhere.Holding(serial) is not { } other || (before is null ? now : then).BayLabelled(other.Label) is not null)
            return new(label, true, $"Bay {label} is in only one of the two snapshots, with {serial} in it.");
        return before is null ? new(label, false, $"Bay {label} is what was bay {other.Label}.") : null; // told once
    }

    private static bool IsUntold(Bay bay) => bay is { Role: BayRole.NotKnown, Serial: null };

    private static bool SameDrive(string? before, string? after) =>
        before is null || after is null ? before == after : SerialComparison.Between(before, after).Outcome == SerialOutcome.Exact;
}
