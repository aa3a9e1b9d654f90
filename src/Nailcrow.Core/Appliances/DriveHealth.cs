using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances;

/// <summary>What the evidence says of the drive itself. Never derived from its role or from the array's state.</summary>
[JsonConverter(typeof(KebabEnum<DriveHealth>))]
public enum DriveHealth
{
    Good,
    Worn,
    Faulted,
    Unknown,
}
