using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances.Arrays;

/// <summary>How an array keeps its redundancy. The number is the trade's name for the level.</summary>
[JsonConverter(typeof(KebabEnum<ArrayLevel>))]
public enum ArrayLevel
{
    Raid0,
    Raid1,
    Raid5,
    Raid6,
    Raid10,
    Raid50,
    Raid60,
    TripleParity,

    /// <summary>Drives of mixed sizes, one of them may be lost.</summary>
    MixedSizeOne,

    /// <summary>Drives of mixed sizes, two of them may be lost.</summary>
    MixedSizeTwo,

    /// <summary>k parts of data and m of redundancy spread over the members; the array says its m.</summary>
    KPlusM,
}
