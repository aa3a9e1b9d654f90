using System.Text.Json.Serialization;

namespace Nailcrow.Core.Procedures;

/// <summary>Something that has to be so before a run may go on. Each is read from the ticket, never ticked by hand.</summary>
[JsonConverter(typeof(KebabEnum<GateFact>))]
public enum GateFact
{
    PartInHand,
    BackupAsked,
    SnapshotBefore,
    NotRebuilding,
    PullNotFatal,
    ChassisEstablished,
    BayEstablished,
    AsBefore,
    NewDriveSeen,
    LightOff,
    RebuildSeen,
    ArrayWhole,
    SnapshotAfter,
}
