namespace Nailcrow.Core.Appliances;

/// <summary>What makes a typed or fetched snapshot unusable, each as a sentence. Empty when it can be kept.</summary>
public static class SnapshotProblems
{
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
