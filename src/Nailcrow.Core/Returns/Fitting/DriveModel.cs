using Nailcrow.Core.Returns.Claiming;

namespace Nailcrow.Core.Returns.Fitting;

/// <summary>What a maker sells under one name. Rates and errors are as its datasheet states them.</summary>
/// <param name="Id">Maker and name as on the label: "Pellworth P8-K".</param>
/// <param name="Interface">sata, sas or nvme.</param>
/// <param name="SectorFormat">512n, 512e or 4kn.</param>
/// <param name="Media">disk or flash.</param>
/// <param name="Duty">What it was made for: array, archive, surveillance or desktop.</param>
/// <param name="Shingled">Tracks overlap: fast to read, very slow to rebuild onto.</param>
/// <param name="Rpm">Spindle speed in turns a minute; null for flash.</param>
/// <param name="YearlyFailurePercent">Stated share of drives that fail in a year, in percent.</param>
public sealed record DriveModel(
    string Id,
    long Bytes,
    string FormFactor,
    string Interface,
    string SectorFormat,
    string Media,
    string Duty = "array",
    bool Shingled = false,
    int? Rpm = null,
    int? MegabytesPerSecond = null,
    double? YearlyFailurePercent = null
)
{
    /// <summary>
    /// Whether a model of a list is the one that is named: a label names maker and model, a machine the model alone; capitals and how
    /// many blanks stand between say nothing.
    /// </summary>
    public static bool IsCalled(string id, string named)
    {
        var (listed, said) = (Spaced(id), Spaced(named));
        return said.Length > 0
            && listed.EndsWith(said, StringComparison.OrdinalIgnoreCase)
            && (listed.Length == said.Length || listed[^(said.Length + 1)] == ' ');
    }

    /// <summary>A name with one blank between its words. Lists are gone through by names, which nearly always are as they should be.</summary>
    internal static string Spaced(string name)
    {
        for (var i = 0; i < name.Length; i++)
            if (char.IsWhiteSpace(name[i]) && (name[i] != ' ' || i == 0 || i == name.Length - 1 || name[i - 1] == ' '))
                return string.Join(' ', name.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        return name;
    }
}

/// <summary>A drive that lies in a depot and could be brought.</summary>
/// <param name="Hours">Hours it has run, where known.</param>
/// <param name="UsedIn">The machine it came out of; null for a new one.</param>
/// <param name="Wiped">Whether a wipe is on record since.</param>
/// <param name="Since">Since when it lies there; null where nobody has said.</param>
/// <param name="Warranty">What is known of its warranty; null where nothing is.</param>
public sealed record StockPart(
    string Serial,
    string Model,
    long Bytes,
    string Depot,
    int? Hours = null,
    string? UsedIn = null,
    bool Wiped = false,
    DateTimeOffset? Since = null,
    KnownWarranty? Warranty = null
);

/// <summary>One line of what is known to work in a model, or not to.</summary>
/// <param name="NotBecause">Null where it works; else what happens with it.</param>
public sealed record Qualified(string ApplianceModel, string DriveModel, string? NotBecause = null);
