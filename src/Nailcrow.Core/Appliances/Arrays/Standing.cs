using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances.Arrays;

/// <summary>
/// How an array stands, from what its bays, the drives' health and the array itself say. Only what serves counts. Where they
/// contradict each other the most cautious stands, and the contradiction is told.
/// </summary>
public sealed class Standing
{
    private readonly DriveArray _array;
    private readonly IReadOnlyList<Bay> _listed;
    private readonly IReadOnlyList<Bay> _serving;
    private readonly int _hidden;

    private Standing(DriveArray array, IReadOnlyList<Bay> listed, int hidden)
    {
        (_array, _listed) = (array, listed);
        _serving = [.. listed.Where(Serves)];
        _hidden = Math.Min(hidden, Math.Max(0, array.DesignMembers - listed.Count));
        var counted = Arrays.Margin.Between(array, _serving, [], _hidden, SaysShort);
        IsLost = array.State == ArrayState.Failed || counted.Best < 0;
        // What serves has lost no data, however many of its members nobody described.
        Margin = IsLost ? new(Math.Min(counted.Worst, -1), Math.Min(counted.Best, -1)) : new(Math.Max(counted.Worst, 0), counted.Best);
        Doubts = [.. Told()];
    }

    /// <summary>How many more drives it can lose: at worst, and at best where not everything is known.</summary>
    public MarginRange Margin { get; }

    /// <summary>More is gone than it can bear, or it says so itself.</summary>
    public bool IsLost { get; }

    /// <summary>Members that serve.</summary>
    public int Serving => _serving.Count;

    /// <summary>What contradicts what, or is not known, each as a sentence.</summary>
    public IReadOnlyList<string> Doubts { get; }

    public static Standing Of(Snapshot snapshot, DriveArray array) =>
        new(array, [.. snapshot.Holding(array).Where(IsListed)], Hidden(snapshot));

    /// <summary>All arrays of a snapshot, by name; its bays are gone through once.</summary>
    public static IReadOnlyDictionary<string, Standing> OfAll(Snapshot snapshot)
    {
        var listed = snapshot.Bays.Where(IsListed).ToLookup(b => b.Array);
        var hidden = Hidden(snapshot);
        return snapshot.Arrays.ToDictionary(a => a.Name, a => new Standing(a, [.. listed[a.Name]], hidden));
    }

    /// <summary>A member whose drive has not failed; one that is being filled does not serve yet.</summary>
    public static bool Serves(Bay bay) => bay is { Role: BayRole.Member, Health: not DriveHealth.Faulted };

    /// <summary>The margin if these drives were gone as well.</summary>
    public MarginRange Without(params IReadOnlyCollection<Bay> gone)
    {
        var going = _serving.Where(b => gone.Any(g => g.Label == b.Label)).ToList();
        return IsLost || going.Count == 0 ? Margin : Arrays.Margin.Between(_array, _serving, going, _hidden, SaysShort);
    }

    private bool SaysShort => _array.State is ArrayState.Degraded or ArrayState.Rebuilding;

    private static bool IsListed(Bay bay) => bay.Role is BayRole.Member or BayRole.Filling && bay.Array is not null;

    /// <summary>Bays that nobody described, and drives of an array for which the snapshot has no bay at all.</summary>
    private static int Hidden(Snapshot snapshot) =>
        snapshot.Bays.Count(b => b.Role == BayRole.NotKnown) + Math.Max(0, snapshot.Arrays.Sum(a => a.DesignMembers) - snapshot.Bays.Count);

    private IEnumerable<string> Told()
    {
        foreach (var bay in _listed.Where(b => b is { Role: BayRole.Member, Health: DriveHealth.Faulted }))
            yield return $"Bay {bay.Label} is listed as a member of {_array.Name} and reads faulted: it is not counted.";
        if (_hidden > 0)
            yield return $"Nobody has described {(_hidden == 1 ? "one" : $"{_hidden}")} of the {_array.DesignMembers} drives of {_array.Name}.";
        if (_array.State == ArrayState.Whole && _listed.Count + _hidden < _array.DesignMembers)
            yield return $"{_array.Name} reads whole and has {_listed.Count} of {_array.DesignMembers} members: the count stands.";
        if (SaysShort && _serving.Count >= _array.DesignMembers)
            yield return $"{_array.Name} reads {Words.Of(_array.State)} and all {_array.DesignMembers} members read well: "
                + "it is taken to be one short.";
        if (!IsLost && _serving.Count < _array.DesignMembers && IsSpread && !Arrays.Margin.GroupsAreTold(_array, _serving))
            yield return $"Nobody has said which drives of {_array.Name} "
                + $"{(Redundancy.Of(_array).IsMirrored ? "mirror each other" : "belong to one group")}.";
    }

    private bool IsSpread => Redundancy.Of(_array).Groups > 1;
}
