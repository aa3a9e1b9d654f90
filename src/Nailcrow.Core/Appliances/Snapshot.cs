using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances;

/// <summary>All bays of an appliance with what each holds, at a time, and who says so.</summary>
/// <param name="Source">"redfish" for a machine's own answer, "person" for one typed from a screen or a label.</param>
/// <param name="Gaps">What of the machine could not be read, each as a sentence; null where all of it was.</param>
public sealed record Snapshot(
    DateTimeOffset TakenAt,
    string Source,
    IReadOnlyList<Bay> Bays,
    IReadOnlyList<DriveArray> Arrays,
    IReadOnlyList<string>? Gaps = null
)
{
    /// <summary>Where some of it was not read: every bay there is that it does not tell of, as one nobody knows what is in.</summary>
    /// <param name="labels">Of all bays of the appliance.</param>
    public Snapshot WithUntold(IEnumerable<string> labels) =>
        Gaps is null
            ? this
            : this with
            {
                Bays = [.. Bays, .. labels.Where(l => BayLabelled(l) is null).Select(l => new Bay(l, BayRole.NotKnown))],
            };

    public Bay? BayLabelled(string? label) => Bays.FirstOrDefault(b => string.Equals(b.Label, label, StringComparison.OrdinalIgnoreCase));

    public Bay? Holding(string? serial) =>
        serial is null
            ? null
            : Bays.FirstOrDefault(b => b.Serial is not null && SerialComparison.Between(serial, b.Serial).Outcome == SerialOutcome.Exact);

    public DriveArray? ArrayOf(Bay? bay) => Arrays.FirstOrDefault(a => a.Name == bay?.Array);

    public IEnumerable<Bay> Holding(DriveArray array) => Bays.Where(b => b.Array == array.Name);

    /// <summary>Members that count towards redundancy; one being filled does not yet, one that has failed no longer.</summary>
    public int MembersOf(DriveArray array) => Holding(array).Count(Standing.Serves);

    /// <summary>Whole by count and by the machine's word: a mirror can read "online" with a single drive left.</summary>
    public bool IsWhole(DriveArray array) => array.State == ArrayState.Whole && MembersOf(array) >= array.DesignMembers;
}
