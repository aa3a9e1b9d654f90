using System.Text.Json.Nodes;
using Nailcrow.StandIn.Machine;

namespace Nailcrow.StandIn.Redfish;

/// <summary>The stand-in as the open Redfish schema shows it.</summary>
internal static class RedfishTree
{
    private const string Storage = "/redfish/v1/Systems/1/Storage/1";

    /// <summary>The resource at a path, or null where there is none.</summary>
    public static JsonObject? Resource(StandInMachine machine, string path)
    {
        var view = machine.Manner == Manner.Vague ? Vague(machine.View()) : machine.View();
        return path.TrimEnd('/') switch
        {
            "/redfish/v1" => Root(),
            "/redfish/v1/Chassis" => Collection(path, ["/redfish/v1/Chassis/1"]),
            "/redfish/v1/Chassis/1" => Chassis(machine),
            "/redfish/v1/Systems" => Collection(path, ["/redfish/v1/Systems/1"]),
            "/redfish/v1/Systems/1" => new()
            {
                ["@odata.id"] = path,
                ["Id"] = "1",
                ["Storage"] = Link("/redfish/v1/Systems/1/Storage"),
            },
            "/redfish/v1/Systems/1/Storage" => Collection(path, [Storage]),
            Storage => StorageOf(view),
            Storage + "/Volumes" => Collection(path, view.Arrays.Select(a => VolumePath(a.Name))),
            var p when p.StartsWith(Storage + "/Volumes/", StringComparison.Ordinal) => view.Arrays.FirstOrDefault(a =>
                VolumePath(a.Name) == p
            )
                is { } array
                ? Volume(view, machine.Manner == Manner.Contradicts ? Twice(view, array) : array)
                : null,
            var p when p.StartsWith(Storage + "/Drives/", StringComparison.Ordinal) => view.Bays.FirstOrDefault(b => DrivePath(b.Name) == p)
                is { } bay
                ? Drive(view, bay)
                : null,
            _ => null,
        };
    }

    private static JsonObject Root() =>
        new()
        {
            ["@odata.id"] = "/redfish/v1/",
            ["@odata.type"] = "#ServiceRoot.v1_16_0.ServiceRoot",
            ["RedfishVersion"] = "1.18.0",
            ["Chassis"] = Link("/redfish/v1/Chassis"),
            ["Systems"] = Link("/redfish/v1/Systems"),
            ["EventService"] = Link("/redfish/v1/EventService"),
        };

    private static JsonObject Chassis(StandInMachine machine) =>
        new()
        {
            ["@odata.id"] = "/redfish/v1/Chassis/1",
            ["@odata.type"] = "#Chassis.v1_25_0.Chassis",
            ["Id"] = "1",
            ["SerialNumber"] = machine.Serial,
            ["Manufacturer"] = "Brackmere",
            ["Model"] = "B12",
            ["LocationIndicatorActive"] = machine.LocatorOn,
        };

    private static JsonObject StorageOf(MachineView view) =>
        new()
        {
            ["@odata.id"] = Storage,
            ["@odata.type"] = "#Storage.v1_17_0.Storage",
            ["Id"] = "1",
            ["Drives"] = new JsonArray([.. view.Bays.Select(b => Link(DrivePath(b.Name)))]),
            ["Volumes"] = Link(Storage + "/Volumes"),
        };

    private static JsonObject Volume(MachineView view, ArrayView array)
    {
        var members = array.Members.OfType<string>().Concat(array.FillingSerial is { } filling ? [filling] : []);
        return new()
        {
            ["@odata.id"] = VolumePath(array.Name),
            ["@odata.type"] = "#Volume.v1_10_1.Volume",
            ["Id"] = array.Name,
            ["Name"] = array.Name,
            ["RAIDType"] = array.RaidType,
            ["CapacityBytes"] = (array.Members.Count - array.Bears) * 8_001_563_222_016,
            ["Status"] = new JsonObject
            {
                ["State"] =
                    array.Failed ? "Disabled"
                    : array.Missing > 0 ? "Degraded"
                    : "Enabled",
                ["Health"] =
                    array.Failed ? "Critical"
                    : array.Missing > 0 ? "Warning"
                    : "OK",
            },
            ["Operations"] = array.FillingSerial is null ? new JsonArray() : new JsonArray(Rebuild(array.Percent)),
            ["Links"] = new JsonObject
            {
                ["Drives"] = new JsonArray([.. members.Select(s => PathOf(view, s)).OfType<string>().Select(Link)]),
                ["DedicatedSpareDrives"] = new JsonArray([.. SparesOf(view, array).Select(Link)]),
            },
        };
    }

    /// <summary>The array with the first drive of the first array as a member as well.</summary>
    private static ArrayView Twice(MachineView view, ArrayView array) =>
        array with
        {
            Members = [view.Arrays[0].Members.First(m => m is not null), .. array.Members.Skip(1)],
        };

    private static IEnumerable<string> SparesOf(MachineView view, ArrayView array) =>
        array.Name == "vault"
        && view.Arrays.All(a => !a.Members.Contains(view.SpareSerial) && a.FillingSerial != view.SpareSerial)
        && PathOf(view, view.SpareSerial) is { } path
            ? [path]
            : [];

    private static JsonObject Drive(MachineView view, BayView bay)
    {
        var resource = new JsonObject
        {
            ["@odata.id"] = DrivePath(bay.Name),
            ["@odata.type"] = "#Drive.v1_20_0.Drive",
            ["Id"] = bay.Name,
            ["Name"] = bay.Name,
            ["PhysicalLocation"] = new JsonObject
            {
                ["PartLocation"] = new JsonObject { ["ServiceLabel"] = $"Bay {bay.Label}", ["LocationType"] = "Bay" },
            },
        };
        if (bay.Drive is not { } drive)
        {
            resource["Status"] = new JsonObject { ["State"] = "Absent" };
            return resource;
        }
        resource["SerialNumber"] = drive.Serial;
        resource["Model"] = drive.Model;
        resource["CapacityBytes"] = drive.Bytes;
        resource["FailurePredicted"] = drive.Condition == DriveCondition.Warns;
        resource["Status"] = Status(drive);
        var array = view.Arrays.FirstOrDefault(a =>
            a.Members.Contains(drive.Serial) || a.ThrownOut.Contains(drive.Serial) || a.FillingSerial == drive.Serial
        );
        resource["Links"] = new JsonObject
        {
            ["Volumes"] = new JsonArray([.. array is null ? [] : new[] { Link(VolumePath(array.Name)) }]),
        };
        resource["Operations"] = array?.FillingSerial == drive.Serial ? new JsonArray(Rebuild(array.Percent)) : new JsonArray();
        return resource;
    }

    private static JsonObject Status(StandInDrive drive) =>
        drive.Condition switch
        {
            DriveCondition.Failed => new()
            {
                ["State"] = "UnavailableOffline",
                ["Health"] = "Critical",
                ["Conditions"] = new JsonArray(Condition("4127 unreadable sectors, 212 command timeouts")),
            },
            DriveCondition.Warns => new()
            {
                ["State"] = "Enabled",
                ["Health"] = "Warning",
                ["Conditions"] = new JsonArray(Condition("38 reallocated sectors, rising")),
            },
            _ => new() { ["State"] = "Enabled", ["Health"] = "OK" },
        };

    private static JsonObject Condition(string message) => new() { ["Message"] = message };

    private static JsonObject Rebuild(decimal? percent) =>
        percent is { } known
            ? new() { ["OperationName"] = "Rebuild", ["PercentageComplete"] = known }
            : new() { ["OperationName"] = "Rebuild" };

    private static MachineView Vague(MachineView view) => view with { Arrays = [.. view.Arrays.Select(a => a with { Percent = null })] };

    private static JsonObject Collection(string path, IEnumerable<string> members)
    {
        var links = members.Select(Link).ToArray<JsonNode>();
        return new()
        {
            ["@odata.id"] = path,
            ["Members@odata.count"] = links.Length,
            ["Members"] = new JsonArray(links),
        };
    }

    private static JsonObject Link(string path) => new() { ["@odata.id"] = path };

    private static string VolumePath(string name) => $"{Storage}/Volumes/{name}";

    private static string DrivePath(string name) => $"{Storage}/Drives/{name}";

    private static string? PathOf(MachineView view, string serial) =>
        view.Bays.FirstOrDefault(b => b.Drive?.Serial == serial) is { } bay ? DrivePath(bay.Name) : null;
}
