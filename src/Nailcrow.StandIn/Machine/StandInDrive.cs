namespace Nailcrow.StandIn.Machine;

internal enum DriveCondition
{
    Good,
    Warns,
    Failed,
}

/// <summary>A simulated drive: it stays itself wherever it is put.</summary>
internal sealed record StandInDrive(string Serial, string Model, long Bytes, DriveCondition Condition = DriveCondition.Good);
