using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Procedures;

/// <summary>The nine kinds of step. In a procedure file the kind is the key that holds the step's sentence.</summary>
[JsonConverter(typeof(KebabEnum<StepKind>))]
public enum StepKind
{
    Do,
    Look,
    Read,
    Scan,
    Hold,
    Limit,
    Gate,
    Light,
    Call,
}

/// <summary>What an answer to a step puts on record beside itself.</summary>
[JsonConverter(typeof(KebabEnum<Records>))]
public enum Records
{
    ChassisMark,
    BayMark,
    Backup,
    BackupDetail,
    Release,

    /// <summary>A drive is out of its bay; which one is not known before its serial is read.</summary>
    DrawnOut,
    Pulled,
    PutBack,

    /// <summary>The drive leaves its carrier.</summary>
    CarrierOff,
    Inserted,

    /// <summary>The drive that was just put in, and that the machine has not seen, leaves its place again to be seated anew.</summary>
    Unseated,

    /// <summary>That drive comes out for good: it is dead or not taken, and another part goes in.</summary>
    Withdrawn,

    /// <summary>Why the part is no replacement is said by the answer.</summary>
    GivenUp,

    /// <summary>The same drive went back into its bay on purpose.</summary>
    Reseated,
    RebuildStarted,
    OldDataCleared,
    Restored,

    /// <summary>Who agreed to what is done, and on which terms; written down.</summary>
    Agreed,

    /// <summary>What the data came back from.</summary>
    RestoredFrom,

    /// <summary>How much the array holds, as the machine's screen says.</summary>
    Usable,

    /// <summary>The machine is off; the answer says who or what did it.</summary>
    FoundOff,

    /// <summary>The machine is on again; the answer says who allowed it.</summary>
    SwitchedOn,
    LightOn,
    LightOff,
}

/// <summary>What a scanned serial is held against.</summary>
[JsonConverter(typeof(KebabEnum<ScanTarget>))]
public enum ScanTarget
{
    DriveOut,
    DriveIn,
    Chassis,
}

/// <summary>What the step's drawing points at.</summary>
[JsonConverter(typeof(KebabEnum<PointsAt>))]
public enum PointsAt
{
    Nothing,
    Bay,
    Chassis,
}

/// <summary>How redundancy comes back, which decides what proves that the work is done.</summary>
[JsonConverter(typeof(KebabEnum<ComesBack>))]
public enum ComesBack
{
    /// <summary>By a rebuild, started by hand or by itself as the model says.</summary>
    ByRebuild,

    /// <summary>A spare stepped in earlier; the new drive becomes the spare.</summary>
    SpareSteppedIn,

    /// <summary>The data is protected elsewhere first; the machine releases the drive.</summary>
    ReleasedFirst,

    /// <summary>It was never away: a further drive goes into an empty bay and stands by as the spare.</summary>
    Added,

    /// <summary>It does not: rebuilt from nothing and restored.</summary>
    Cannot,

    /// <summary>Nothing is swapped here: the machine is brought back to how it was, and the sheet that was interrupted goes on.</summary>
    Unchanged,
}
