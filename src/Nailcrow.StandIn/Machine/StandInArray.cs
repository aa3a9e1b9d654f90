namespace Nailcrow.StandIn.Machine;

/// <summary>A simulated array. Its members are serials; a place that lost its drive holds null.</summary>
internal sealed class StandInArray(string name, string raidType, int bears, IEnumerable<string> members)
{
    public string Name { get; } = name;
    public string RaidType { get; } = raidType;

    /// <summary>How many members it can lose.</summary>
    public int Bears { get; } = bears;

    public List<string?> Members { get; } = [.. members];

    /// <summary>Serials that were thrown out and are remembered.</summary>
    public HashSet<string> ThrownOut { get; } = [];

    public StandInRebuild? Rebuild { get; set; }

    public int Missing => Members.Count(m => m is null);

    public bool IsFailed => Missing > Bears;
}

/// <summary>A rebuild onto one drive, from a moment on.</summary>
internal sealed record StandInRebuild(string Serial, int Place, DateTimeOffset Began, TimeSpan Takes)
{
    /// <summary>
    /// A disk is slower towards its end: at place x it runs at 1 − x/2 of its outer rate. So
    /// x(t) = 2·(1 − 2^(−t/T)), which reaches 1 at T. In percent, to one decimal as the screen shows it.
    /// </summary>
    public decimal PercentAt(DateTimeOffset now)
    {
        var share = Math.Clamp((now - Began) / Takes, 0, 1);
        return Math.Round((decimal)(200 * (1 - Math.Pow(2, -share))), 1);
    }
}
