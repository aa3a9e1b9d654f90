using System.Text.Json;
using Nailcrow.Appliances.Redfish;
using Nailcrow.Core.Appliances;

namespace Nailcrow.Appliances.Tests;

public class TwoArraysOfOneNameTests
{
    private static JsonElement Json(string text) => JsonDocument.Parse(text).RootElement;

    private static JsonElement Drive(int bay) =>
        Json(
            """
            {"@odata.id":"/d/N","Id":"dkN","SerialNumber":"P8TWIN000N","CapacityBytes":8000000000000,
             "PhysicalLocation":{"PartLocation":{"ServiceLabel":"N"}},"Status":{"Health":"OK","State":"Enabled"}}
            """.Replace("N\"", $"{bay}\"", StringComparison.Ordinal)
        );

    private static JsonElement Volume(string id, string name, int first) =>
        Json(
            $$$"""
            {"@odata.id":"/v/{{{id}}}","Id":"{{{id}}}","Name":"{{{name}}}","RAIDType":"RAID1","Status":{"Health":"OK","State":"Enabled"},
             "Links":{"Drives":[{"@odata.id":"/d/{{{first}}}"},{"@odata.id":"/d/{{{first + 1}}}"}]}}
            """
        );

    [Fact]
    public void The_machines_own_ids_tell_them_apart()
    {
        var reading = new RedfishReading(new Appliance("FSC-1", "S", "m", "Corrin", "Hall"), DateTimeOffset.UnixEpoch.AddYears(50));

        var seen = reading
            .Of([.. Enumerable.Range(1, 4).Select(Drive)], [Volume("7", "data", 1), Volume("9", "Data", 3)], Json("{}"))
            .Snapshot;

        seen.Arrays.Select(a => a.Name).ShouldBe(["data (7)", "Data (9)"]);
        seen.Bays.Select(b => b.Array).ShouldBe(["data (7)", "data (7)", "Data (9)", "Data (9)"]);
    }
}
