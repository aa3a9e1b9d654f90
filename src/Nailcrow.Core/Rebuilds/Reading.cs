using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Rebuilds;

/// <summary>What a rebuild is doing; percent belongs to one of these, and phases follow each other.</summary>
[JsonConverter(typeof(KebabEnum<RebuildPhase>))]
public enum RebuildPhase
{
    Preparing,
    Checking,
    Rebuilding,
    Growing,
}

[JsonConverter(typeof(KebabEnum<Progress>))]
public enum Progress
{
    Running,
    Done,
    Failed,
}

/// <summary>One observation of a rebuild's progress, from a person or a machine.</summary>
/// <param name="Percent">0 to 100 with the precision it was read with; null where the machine shows none.</param>
/// <param name="Source">"redfish" or "person"; a person's reading is as good as a machine's.</param>
public sealed record Reading(DateTimeOffset At, string Array, Progress Progress, RebuildPhase Phase, decimal? Percent, string Source)
{
    public const string Person = Appliances.SeenByPerson.Source;

    /// <summary>The rebuild is over. Where only what comes before it is done, it is not.</summary>
    public bool IsTheEnd() => (Progress, Phase) is (Progress.Done, RebuildPhase.Rebuilding or RebuildPhase.Growing);

    /// <summary>Nothing more is to be seen of this rebuild: it ended, well or not.</summary>
    public bool IsOver() => IsTheEnd() || Progress == Progress.Failed;

    /// <summary>Null if the reading can be one; else what is wrong with it and what would be accepted.</summary>
    public static string? Problem(decimal? percent) =>
        percent is < 0 or > 100
            ? $"{percent} % is not a reading; a screen shows 0 to 100. If it shows none, leave the percentage out."
            : null;
}
