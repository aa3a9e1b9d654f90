using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances;

/// <summary>What makes a typed or fetched snapshot unusable, each as a sentence. Empty when it can be kept.</summary>
public static class SnapshotProblems
{
    // Eleven chassis of 106 bays; beyond that somebody typed a serial into a count.
    private const int MostMembers = 1_200;

    public static IEnumerable<string> In(Snapshot snapshot)
    {
        if (snapshot.Bays.Count == 0)
            yield return "A snapshot names every bay, empty ones too; this one has none.";
        foreach (var twice in Repeated(snapshot.Bays.Select(b => b.Label)))
            yield return $"Bay {twice} is listed twice; each bay is listed once.";
        foreach (var twice in Repeated(snapshot.Bays.Select(b => b.Serial).OfType<string>()))
            yield return $"Serial {twice} is in two bays; one drive is in one bay.";
        foreach (var bay in snapshot.Bays.Where(b => b.Role == BayRole.Empty && b.Serial is not null))
            yield return $"Bay {bay.Label} is called empty and holds {bay.Serial}; give it another role or no serial.";
        foreach (var twice in Repeated(snapshot.Arrays.Select(a => a.Name)))
            yield return $"Array {twice} is listed twice; each array has a name of its own in a snapshot.";
        foreach (var array in snapshot.Arrays.Where(a => a.DesignMembers > MostMembers))
            yield return $"Array {array.Name} has {array.DesignMembers:N0} members; an appliance has at most {MostMembers:N0} bays.";
        foreach (
            var bay in snapshot.Bays.Where(b =>
                b.Group is { } group && snapshot.ArrayOf(b) is { } array && group >= Redundancy.Of(array).Groups
            )
        )
            // its array is there: asked a line above
            yield return $"Bay {bay.Label} is in group {bay.Group} of {bay.Array}, which has {Redundancy.Of(snapshot.ArrayOf(bay)!).Groups}, counted from 0.";
        foreach (var bay in snapshot.Bays.Where(b => b.Array is not null && snapshot.ArrayOf(b) is null))
            yield return $"Bay {bay.Label} belongs to array '{bay.Array}', which the snapshot does not list.";
        foreach (var array in snapshot.Arrays)
            if (Redundancy.Problem(array.Level, array.DesignMembers, array.Groups, array.Parity) is { } problem)
                yield return $"Array {array.Name} {problem}.";
        foreach (var bay in snapshot.Bays.Where(b => b.Bytes is { } bytes && bytes < ByteSize.FewestOfADrive))
            yield return $"Bay {bay.Label} has {bay.Bytes} bytes; sizes are in bytes, and no drive is under {ByteSize.FewestOfADrive:N0}. Was it meant in GB?";
    }

    private static IEnumerable<string> Repeated(IEnumerable<string> texts) =>
        texts.GroupBy(t => t.ToUpperInvariant()).Where(g => g.Count() > 1).Select(g => g.Key);
}
