using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances.Models;

[JsonConverter(typeof(KebabEnum<Loading>))]
public enum Loading
{
    Front,
    Top,
    Drawer,

    /// <summary>No bays: drives are screwed to the inside of the case.</summary>
    Inside,
}

[JsonConverter(typeof(KebabEnum<SwapPower>))]
public enum SwapPower
{
    Hot,
    Off,
}

[JsonConverter(typeof(KebabEnum<RebuildStart>))]
public enum RebuildStart
{
    ByHand,
    ByItself,
}

/// <summary>How bay labels run as one stands before the machine.</summary>
[JsonConverter(typeof(KebabEnum<BayOrder>))]
public enum BayOrder
{
    AlongRows,
    DownColumns,

    /// <summary>Along rows, the lowest row first.</summary>
    FromBelow,

    /// <summary>Down columns, the rightmost column first.</summary>
    FromTheRight,
}

[JsonConverter(typeof(KebabEnum<Bezel>))]
public enum Bezel
{
    None,
    Clips,
    Key,
}

[JsonConverter(typeof(KebabEnum<Locator>))]
public enum Locator
{
    None,
    Chassis,
    EachBay,
}

/// <summary>Where the rebuild runs; an operating system has to be booted for it.</summary>
[JsonConverter(typeof(KebabEnum<RebuildRuns>))]
public enum RebuildRuns
{
    Controller,
    OperatingSystem,
}

[JsonConverter(typeof(KebabEnum<RebuildCopies>))]
public enum RebuildCopies
{
    WholeMember,
    UsedSpace,
}

/// <summary>How an array comes to use larger drives once it has enough of them.</summary>
[JsonConverter(typeof(KebabEnum<Growth>))]
public enum Growth
{
    Never,
    Automatic,
    Prompted,
    ByHand,
}

/// <summary>What the new drive is when all is well again.</summary>
[JsonConverter(typeof(KebabEnum<EndState>))]
public enum EndState
{
    Member,
    Spare,
}

/// <summary>A lamp pattern of this model and what it means on it; another model's fault lamp may be this one's "all well".</summary>
public sealed record LampMeaning(string Pattern, string Meaning);
