using System.Text.Json.Serialization;

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
    Pulled,
    PutBack,
    Inserted,
    RebuildStarted,
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
