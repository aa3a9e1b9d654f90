using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

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

    /// <summary>The array is whole before the pull: where nothing has failed, it is the swap that makes it degraded.</summary>
    WholeBefore,

    /// <summary>The machine lists the drive as no member any more.</summary>
    Released,
    ChassisEstablished,
    BayEstablished,
    AsBefore,

    /// <summary>No drive is in the bay that one is to go into.</summary>
    BayEmpty,
    NewDriveSeen,

    /// <summary>The new drive carries no other array's data.</summary>
    NothingForeign,
    LightOff,
    RebuildSeen,

    /// <summary>The new drive is a member and its array does not rebuild; another one may still be missing.</summary>
    DriveJoined,
    ArrayWhole,

    /// <summary>The new drive is listed as spare and the array is whole.</summary>
    SpareBack,

    /// <summary>Every drive this ticket put in is seen, good and in use.</summary>
    AllNewGood,

    /// <summary>The customer has confirmed that the data is there again.</summary>
    Restored,

    /// <summary>The machine was looked at since this sheet began, by whatever way in.</summary>
    SeenAgain,
    SnapshotAfter,
}

public static class GateFacts
{
    /// <summary>What the rebuild brings about by itself: whoever waits for it looks on.</summary>
    public static bool ComesWithTheRebuild(this GateFact? fact) =>
        fact is GateFact.ArrayWhole or GateFact.DriveJoined or GateFact.RebuildSeen;
}
