using System.Text.Json;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish;

/// <summary>Which enclosure a drive is in, as its bay's label says it: nothing for the machine itself, "E1/" for an expansion that is known.</summary>
internal sealed class RedfishEnclosures
{
    // Modules within modules; deeper is a loop.
    private const int Deepest = 8;

    private readonly Dictionary<string, JsonElement> _chassis = new(StringComparer.Ordinal);
    private readonly Dictionary<string, string> _known = new(StringComparer.Ordinal);
    private readonly Dictionary<string, string> _holds = new(StringComparer.Ordinal);
    private readonly string? _main;

    /// <exception cref="RedfishException">It is another machine: its bays on this one's ticket would lead somebody to the wrong drive.</exception>
    public RedfishEnclosures(Appliance appliance, IReadOnlyList<JsonElement> chassis)
    {
        foreach (var one in chassis)
        {
            var path = one.Required("@odata.id");
            _chassis[path] = one;
            foreach (var drive in one.Find("Links")?.Links("Drives") ?? [])
                _holds[drive] = path;
            if (appliance.Expansions?.FirstOrDefault(e => Is(one, e.Serial)) is { } expansion)
                _known[path] = $"{expansion.Name}/";
        }
        Itself = chassis.FirstOrDefault(c => Is(c, appliance.Serial));
        if (Itself.ValueKind != JsonValueKind.Object)
        {
            var others = chassis.Where(c => c.Text("SerialNumber") is not null && !_known.ContainsKey(c.Required("@odata.id"))).ToList();
            if (others.Count > 0)
                throw new RedfishException(
                    $"it is the machine with the serial {string.Join(", ", others.Select(c => c.Text("SerialNumber")).Distinct())}, "
                        + $"and {appliance.Asset} has {appliance.Serial}."
                );
            Itself = chassis.FirstOrDefault(c => !_known.ContainsKey(c.Required("@odata.id"))); // one that tells no serial
            TakenOnTrust = Itself.ValueKind == JsonValueKind.Object;
        }
        _main = Itself.Text("@odata.id");
        if (_main is not null)
            _known[_main] = "";
    }

    /// <summary>The chassis the engineer looks for, whose light is switched.</summary>
    public JsonElement Itself { get; }

    /// <summary>Nothing but its address says that it is the machine that was asked for: it tells no serial.</summary>
    public bool TakenOnTrust { get; }

    /// <summary>Whether a label is that of an expansion that is written down with the appliance.</summary>
    public bool IsWrittenDown(string label) => _known.ContainsValue(label);

    /// <summary>What stands before a drive's bay. A chassis nobody wrote down is called what the machine calls it.</summary>
    public string Of(JsonElement drive)
    {
        var path = drive.Find("Links")?.Find("Chassis")?.Text("@odata.id") ?? _holds.GetValueOrDefault(drive.Required("@odata.id"));
        for (var depth = 0; depth < Deepest && path is not null; depth++)
        {
            // Its own bay 1 is not that of an enclosure which could not be read.
            if (!_chassis.TryGetValue(path, out var chassis))
                return $"{path.Split('/')[^1]}/";
            if (_known.TryGetValue(path, out var label))
                return label;
            if (chassis.Find("Links")?.Find("ContainedBy")?.Text("@odata.id") is not { } outer)
                return _main is null ? "" : $"{chassis.Text("Name") ?? chassis.Text("Id") ?? path}/";
            path = outer;
        }
        return "";
    }

    private static bool Is(JsonElement chassis, string serial) =>
        chassis.Text("SerialNumber") is { } told && SerialComparison.Between(told, serial).Outcome == SerialOutcome.Exact;
}
