using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;

namespace Nailcrow.Core.Appliances;

/// <summary>What a person starts from who types the first snapshot: every bay by its label, empty, and the arrays as they were set up.</summary>
public static class BlankSnapshot
{
    public static Snapshot Of(Appliance appliance, IEnumerable<ChassisDrawing> drawing) =>
        new(
            DateTimeOffset.UnixEpoch,
            SeenByPerson.Source,
            [.. drawing.SelectMany(d => d.Labels()).Select(label => new Bay(label, BayRole.NotKnown))],
            [.. (appliance.Arrays ?? []).Select(a => a.As(ArrayState.Whole))]
        );
}
