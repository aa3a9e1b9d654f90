using System.Text.Json.Serialization;

namespace Nailcrow.Core.Appliances;

[JsonConverter(typeof(KebabEnum<Loading>))]
public enum Loading
{
    Front,
    Top,
    Drawer,
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
}

/// <summary>A lamp pattern of this model and what it means on it; another model's fault lamp may be this one's "all well".</summary>
public sealed record LampMeaning(string Pattern, string Meaning);

/// <summary>What one needs to know of an appliance model to swap a drive in it, so that one procedure serves many.</summary>
/// <param name="WaitAfterPullSeconds">Shortest time between pull and insert, in seconds.</param>
/// <param name="MegabytesPerSecond">Sustained rate of the slowest qualified drive at its outer tracks, decimal MB/s.</param>
public sealed record ApplianceModel(
    string Id,
    string Maker,
    string Name,
    int Rows,
    int Columns,
    BayOrder BayOrder,
    Loading Loading,
    SwapPower Swap,
    RebuildStart RebuildStart,
    bool ReleaseBeforePull,
    int WaitAfterPullSeconds,
    int CarrierScrews,
    string Latch,
    string Carrier,
    int MegabytesPerSecond,
    IReadOnlyList<LampMeaning> Lamps,
    IReadOnlyList<string> NormalDuringRebuild,
    IReadOnlyList<string> WaysIn,
    IReadOnlyList<string> Quirks
)
{
    public int Bays => Rows * Columns;

    /// <summary>The printed label at a row and column, both from 0 at the top left.</summary>
    public string LabelAt(int row, int column) =>
        (BayOrder == BayOrder.AlongRows ? row * Columns + column + 1 : column * Rows + row + 1).ToString();
}
