namespace Nailcrow.Core.Appliances.Models;

/// <summary>What one needs to know of an appliance model to swap a drive in it, so that one procedure serves many.</summary>
/// <param name="WaitAfterPullSeconds">Shortest time between pull and insert, in seconds.</param>
/// <param name="MegabytesPerSecond">Sustained rate of the slowest qualified drive at its outer tracks, decimal MB/s.</param>
/// <param name="BayCount">Bays where not every place of the grid is one; the last places are left out.</param>
/// <param name="Drawers">Drawers the rows are spread over, the uppermost first.</param>
/// <param name="FirstLabel">What is printed at the first bay: some count from 0.</param>
/// <param name="CoverLimitSeconds">Longest time the cover may be off, or a drawer out, in seconds.</param>
/// <param name="LocatorOffAfterMinutes">When the locator light goes off by itself.</param>
/// <param name="NextWhilePreparing">Whether the next drive may be done while one is still being prepared.</param>
/// <param name="FormFactor">What fits the carrier, as the trade says it: "3.5-inch".</param>
/// <param name="Interfaces">Drive interfaces that its bays take: sata, sas, nvme.</param>
/// <param name="SectorFormats">Sector formats its arrays take: 512n, 512e, 4kn.</param>
/// <param name="Media">Media its arrays take: disk, flash.</param>
/// <param name="Tools">Tools and keys to have along.</param>
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
    IReadOnlyList<string> Quirks,
    int? BayCount = null,
    int Drawers = 1,
    int FirstLabel = 1,
    bool SlidesOut = false,
    Bezel Bezel = Bezel.None,
    int? CoverLimitSeconds = null,
    Locator Locator = Locator.Chassis,
    int? LocatorOffAfterMinutes = null,
    RebuildRuns RebuildRuns = RebuildRuns.Controller,
    RebuildCopies RebuildCopies = RebuildCopies.WholeMember,
    Growth Growth = Growth.ByHand,
    EndState EndState = EndState.Member,
    bool NextWhilePreparing = false,
    bool ShowsPercent = true,
    string? Seating = null,
    string FormFactor = "3.5-inch",
    IReadOnlyList<string>? Interfaces = null,
    IReadOnlyList<string>? SectorFormats = null,
    IReadOnlyList<string>? Media = null,
    IReadOnlyList<string>? Tools = null
)
{
    // No enclosure that slides into a rack has more.
    public const int MostBays = 106;

    public int Bays => BayCount ?? Rows * Columns;

    /// <summary>The printed label at a row and column, both from 0 at the top left; null where there is no bay.</summary>
    public string? LabelAt(int row, int column)
    {
        var place = BayOrder switch
        {
            BayOrder.AlongRows => row * Columns + column,
            BayOrder.DownColumns => column * Rows + row,
            BayOrder.FromBelow => (Rows - 1 - row) * Columns + column,
            _ => (Columns - 1 - column) * Rows + row,
        };
        return place < Bays ? $"{place + FirstLabel}" : null;
    }

    /// <summary>All labels in the order of their numbers.</summary>
    public IEnumerable<string> Labels() => Enumerable.Range(FirstLabel, Bays).Select(b => $"{b}");

    /// <summary>Everything that cannot be of such a model, each as a sentence.</summary>
    public IEnumerable<string> Problems()
    {
        if (Rows < 1 || Columns < 1 || WaitAfterPullSeconds < 0)
            yield return $"Model '{Id}' has {Rows} rows, {Columns} columns and a wait of {WaitAfterPullSeconds} s; rows and "
                + "columns are at least 1, a wait at least 0.";
        if (Bays < 1 || Bays > MostBays || Bays > Rows * Columns)
            yield return $"Model '{Id}' has {Bays} bays in {Rows} rows of {Columns}; 1 to {MostBays}, and no more than there are places.";
        if (Drawers < 1 || (Rows > 0 && Rows % Drawers != 0))
            yield return $"Model '{Id}' has {Rows} rows in {Drawers} drawers; every drawer has the same number of rows.";
        if (CoverLimitSeconds is < 1)
            yield return $"Model '{Id}' has a cover limit of {CoverLimitSeconds} s; at least 1, or none.";
        if (MegabytesPerSecond < 1)
            yield return $"Model '{Id}' has a rate of {MegabytesPerSecond} MB/s; at least 1.";
    }
}
