using System.Text.Json.Serialization;

namespace Nailcrow.Core.Appliances;

/// <summary>How an array keeps its redundancy. The number is the trade's name for the level.</summary>
[JsonConverter(typeof(KebabEnum<ArrayLevel>))]
public enum ArrayLevel
{
    Raid0,
    Raid1,
    Raid5,
    Raid6,
    Raid10,
}
