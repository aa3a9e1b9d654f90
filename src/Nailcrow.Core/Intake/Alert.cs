using Nailcrow.Core.Appliances;

namespace Nailcrow.Core.Intake;

/// <summary>What a machine said by itself, whichever way it came, in the words of this product.</summary>
/// <param name="Via">syslog, redfish or cloudevents.</param>
/// <param name="Sender">Who it came from: an address or host name, an event's source.</param>
/// <param name="Asset">The appliance it is about; null where the sender is not known.</param>
/// <param name="Bay">The printed label; where only the software's name is known, that is in <paramref name="Name"/>.</param>
/// <param name="Count">How often it was seen; null is once.</param>
public sealed record Alert(
    Guid Id,
    string Via,
    string Sender,
    DateTimeOffset At,
    EvidenceKind Kind,
    string Text,
    string? Asset = null,
    string? Bay = null,
    string? Name = null,
    string? Serial = null,
    string? Array = null,
    int? Count = null
)
{
    /// <summary>The alert with the bay and array that a snapshot knows for its name, serial or bay.</summary>
    public Alert Placed(Snapshot? known)
    {
        var bay = known is null
            ? null
            : known.Holding(Serial)
                ?? known.BayLabelled(Bay)
                ?? known.Bays.FirstOrDefault(b => Name is not null && string.Equals(b.Name, Name, StringComparison.OrdinalIgnoreCase));
        return bay is null ? this : this with { Bay = bay.Label, Serial = Serial ?? bay.Serial, Array = Array ?? bay.Array };
    }
}
