using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances;

/// <summary>What a person sees of one bay where it is not as last recorded; what is left out is as it was.</summary>
/// <param name="Serial">Empty: no drive is there.</param>
/// <param name="Role">Empty: nothing is in it, and nothing else is said of it.</param>
/// <param name="Array">The array's name; empty where the drive belongs to none.</param>
public sealed record SeenBay(string Label, string? Serial = null, BayRole? Role = null, DriveHealth? Health = null, string? Array = null);

/// <summary>What a person sees of an array where it is not as last recorded.</summary>
public sealed record SeenArray(string Name, ArrayState State);

/// <summary>A snapshot typed by a person: the last one, with what they see changed in it. It counts as much as the machine's own word.</summary>
public sealed record SeenByPerson(IReadOnlyList<SeenBay> Bays, IReadOnlyList<SeenArray> Arrays)
{
    /// <summary>The source of a snapshot that somebody typed.</summary>
    public const string Source = "person";

    /// <param name="start">The last snapshot, or the machine's bays with nothing in them.</param>
    /// <returns>The snapshot; or which bay or array there is not, and which there are.</returns>
    public Parsed<Snapshot> On(Snapshot start, DateTimeOffset at)
    {
        if (Bays.FirstOrDefault(b => start.BayLabelled(b.Label) is null) is { } lost)
            return new Parsed<Snapshot>.Refused(
                $"There is no bay '{lost.Label}'; its bays are {string.Join(", ", start.Bays.Select(b => b.Label))}."
            );
        var named = Bays.Select(b => b.Array).OfType<string>().Where(a => a.Length > 0).Concat(Arrays.Select(a => a.Name));
        if (named.FirstOrDefault(name => start.Arrays.All(a => a.Name != name)) is { } unknown)
            return new Parsed<Snapshot>.Refused(
                $"There is no array '{unknown}' here; accepted: {string.Join(", ", start.Arrays.Select(a => a.Name).DefaultIfEmpty("none"))}."
            );
        return new Parsed<Snapshot>.Ok(
            new(
                at,
                Source,
                [.. start.Bays.Select(bay => Bays.Where(b => Is(b, bay)).Aggregate(bay, Seen))],
                [
                    .. start.Arrays.Select(array =>
                        Arrays.Where(a => a.Name == array.Name).Aggregate(array, (a, seen) => a with { State = seen.State })
                    ),
                ]
            )
        );
    }

    private static bool Is(SeenBay seen, Bay bay) => string.Equals(seen.Label, bay.Label, StringComparison.OrdinalIgnoreCase);

    private static Bay Seen(Bay bay, SeenBay seen)
    {
        if (seen.Role == BayRole.Empty || seen.Serial?.Trim().Length == 0)
            return new(bay.Label, BayRole.Empty, Name: bay.Name);
        // Another drive is in the bay: what was known of the one before says nothing of it.
        var other = seen.Serial?.Trim() is { } serial && serial != bay.Serial;
        var there = other
            ? bay with
            {
                Serial = seen.Serial?.Trim(),
                Signs = null,
                Bytes = null,
                Model = null,
                Health = DriveHealth.Unknown,
            }
            : bay;
        return there with
        {
            Role = seen.Role ?? (other && bay.Role == BayRole.Empty ? BayRole.Unclaimed : bay.Role),
            Health = seen.Health ?? there.Health,
            Array =
                seen.Array is null ? bay.Array
                : seen.Array.Length == 0 ? null
                : seen.Array,
        };
    }
}
