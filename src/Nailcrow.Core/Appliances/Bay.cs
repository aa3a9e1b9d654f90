namespace Nailcrow.Core.Appliances;

/// <summary>One bay in a snapshot: its printed label, the name the machine's software uses, and what it holds.</summary>
/// <param name="Label">What is printed on or beside the bay; in an expansion enclosure with the enclosure before it, as in "E1/7".</param>
/// <param name="Name">What the machine's software calls it; need not be in bay order.</param>
/// <param name="Bytes">Capacity in bytes; screens show it binary, labels decimal.</param>
/// <param name="Array">The array that counts this drive, if any.</param>
/// <param name="Group">Which mirror or group of its array the member belongs to, from 0, where known.</param>
/// <param name="Signs">What speaks against the drive, in the machine's own counts.</param>
public sealed record Bay(
    string Label,
    BayRole Role,
    DriveHealth Health = DriveHealth.Unknown,
    string? Name = null,
    string? Serial = null,
    string? Model = null,
    long? Bytes = null,
    string? Array = null,
    int? Group = null,
    IReadOnlyList<string>? Signs = null
);
