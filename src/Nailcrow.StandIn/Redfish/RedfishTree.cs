using System.Text.Json.Nodes;
using Nailcrow.StandIn.Machine;

namespace Nailcrow.StandIn.Redfish;

/// <summary>The stand-in as the open Redfish schema shows it.</summary>
internal static class RedfishTree
{
    private const string Storages = "/redfish/v1/Systems/1/Storage";

    /// <summary>The resource at a path, or null where there is none.</summary>
    public static JsonObject? Resource(StandInMachine machine, string path) =>
        machine.Expansion is { } expansion && (Within(path, $"{Storages}/2") || Within(path, "/redfish/v1/Chassis/2"))
            ? Resource(machine, expansion, 2, path)
            : Resource(machine, machine, 1, path);

    private static bool Within(string path, string resource) =>
        path.TrimEnd('/') == resource || path.StartsWith($"{resource}/", StringComparison.Ordinal);

    /// <param name="whole">The machine that is asked.</param>
    /// <param name="machine">The enclosure of it that the path is about, with its number.</param>
    private static JsonObject? Resource(StandInMachine whole, StandInMachine machine, int nth, string path)
    {
        var view = machine.Manner == Manner.Vague ? Vague(machine.View()) : machine.View();
        var (storage, chassis) = ($"{Storages}/{nth}", $"/redfish/v1/Chassis/{nth}");
        var all = whole.Expansion is null ? new[] { 1 } : [1, 2];
        return path.TrimEnd('/') switch
        {
            "/redfish/v1" => Root(),
            "/redfish/v1/Chassis" => Collection(path, all.Select(n => $"/redfish/v1/Chassis/{n}")),
            var p when p == chassis => Chassis(machine, chassis, storage, view),
            "/redfish/v1/Systems" => Collection(path, ["/redfish/v1/Systems/1"]),
            "/redfish/v1/Systems/1" => new()
            {
                ["@odata.id"] = path,
                ["Id"] = "1",
                ["Storage"] = Link("/redfish/v1/Systems/1/Storage"),
            },
            Storages => Collection(path, all.Select(n => $"{Storages}/{n}")),
            var p when p == storage => StorageOf(storage, view),
            var p when p == storage + "/Volumes" => Collection(path, view.Arrays.Select(a => VolumePath(storage, a.Name))),
            var p when p.StartsWith(storage + "/Volumes/", StringComparison.Ordinal) => view.Arrays.FirstOrDefault(a =>
                VolumePath(storage, a.Name) == p
            )
                is { } array
                ? Volume(storage, view, machine.Manner == Manner.Contradicts ? Twice(view, array) : array)
                : null,
            var p when p.StartsWith(storage + "/Drives/", StringComparison.Ordinal) => view.Bays.FirstOrDefault(b =>
                DrivePath(storage, b.Name) == p
            )
                is { } bay
                ? Drive(storage, chassis, view, bay)
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
            ["Links"] = new JsonObject { ["Sessions"] = Link(SignIns.Path) },
        };

    private static JsonObject Chassis(StandInMachine machine, string path, string storage, MachineView view) =>
        new()
        {
            ["@odata.id"] = path,
            ["@odata.type"] = "#Chassis.v1_25_0.Chassis",
            ["Id"] = path[^1..],
            ["SerialNumber"] = machine.Serial,
            ["Manufacturer"] = "Brackmere",
            ["Model"] = "B12",
            ["LocationIndicatorActive"] = machine.LocatorOn,
            ["Links"] = new JsonObject { ["Drives"] = new JsonArray([.. view.Bays.Select(b => Link(DrivePath(storage, b.Name)))]) },
        };

    private static JsonObject StorageOf(string storage, MachineView view) =>
        new()
        {
            ["@odata.id"] = storage,
            ["@odata.type"] = "#Storage.v1_17_0.Storage",
            ["Id"] = storage[^1..],
            ["Drives"] = new JsonArray([.. view.Bays.Select(b => Link(DrivePath(storage, b.Name)))]),
            ["Volumes"] = Link(storage + "/Volumes"),
            ["StorageControllers"] = new JsonArray(new JsonObject { ["Status"] = new JsonObject { ["Health"] = "OK" } }),
        };

    private static JsonObject Volume(string storage, MachineView view, ArrayView array)
    {
        var members = array.Members.OfType<string>().Concat(array.FillingSerial is { } filling ? [filling] : []);
        return new()
        {
            ["@odata.id"] = VolumePath(storage, array.Name),
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
                ["Drives"] = new JsonArray([.. members.Select(s => PathOf(storage, view, s)).OfType<string>().Select(Link)]),
                ["DedicatedSpareDrives"] = new JsonArray([.. SparesOf(storage, view, array).Select(Link)]),
            },
        };
    }

    /// <summary>The array with the first drive of the first array as a member as well.</summary>
    private static ArrayView Twice(MachineView view, ArrayView array) =>
        array with
        {
            Members = [view.Arrays[0].Members.First(m => m is not null), .. array.Members.Skip(1)],
        };

    private static IEnumerable<string> SparesOf(string storage, MachineView view, ArrayView array) =>
        array.Name == "vault"
        && view.Arrays.All(a => !a.Members.Contains(view.SpareSerial) && a.FillingSerial != view.SpareSerial)
        && PathOf(storage, view, view.SpareSerial) is { } path
            ? [path]
            : [];

    private static JsonObject Drive(string storage, string chassis, MachineView view, BayView bay)
    {
        var resource = new JsonObject
        {
            ["@odata.id"] = DrivePath(storage, bay.Name),
            ["@odata.type"] = "#Drive.v1_20_0.Drive",
            ["Id"] = bay.Name,
            ["Name"] = bay.Name,
            ["PhysicalLocation"] = new JsonObject
            {
                ["PartLocation"] = new JsonObject { ["ServiceLabel"] = $"Bay {bay.Label}", ["LocationType"] = "Bay" },
            },
        };
        resource["Links"] = new JsonObject { ["Chassis"] = Link(chassis) };
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
            ["Chassis"] = Link(chassis),
            ["Volumes"] = new JsonArray([.. array is null ? [] : new[] { Link(VolumePath(storage, array.Name)) }]),
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

    private static string VolumePath(string storage, string name) => $"{storage}/Volumes/{name}";

    private static string DrivePath(string storage, string name) => $"{storage}/Drives/{name}";

    private static string? PathOf(string storage, MachineView view, string serial) =>
        view.Bays.FirstOrDefault(b => b.Drive?.Serial == serial) is { } bay ? DrivePath(storage, bay.Name) : null;
}
