using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Tests;

/// <summary>Machines with more than one of everything, and with some of it not to be had.</summary>
public sealed class MachineOfManyPartsTests
{
    private readonly MadeUpMachine _machine = new();

    private (string Chassis, string System, string Storage) OneOfEach()
    {
        var chassis = _machine.Chassis("1", "CHS-1");
        var system = _machine.System("1");
        return (chassis, system, _machine.Storage(system, "a"));
    }

    [Theory]
    [InlineData("{\"Id\":\"\\ud800\",\"SerialNumber\":\"SER1AAAA\"}", "half a character")]
    [InlineData("{\"\\udc00\":1,\"SerialNumber\":\"SER1AAAA\"}", "half a character in a name")]
    [InlineData("{\"SerialNumber\":\"SER\u00FF1AAA\"}", "a byte that is no UTF-8")]
    [InlineData("{\"SerialNumber\":", "half of it")]
    [InlineData("[7]", "no object")]
    public async Task What_a_machine_answers_that_cannot_be_read_is_told_wherever_it_stands(string answer, string what)
    {
        var (chassis, _, storage) = OneOfEach();
        var broken = _machine.Drive(storage, "dk0", "1", "SER1AAAA", chassis);
        _machine.Drive(storage, "dk1", "2", "SER2AAAA", chassis);

        _machine.Says(broken, answer);
        var seen = await _machine.SeenAsync();
        seen.Bays.ShouldContain(b => b.Serial == "SER2AAAA", what);
        seen.Gaps.ShouldNotBeNull(what);

        _machine.Says("/redfish/v1/Systems", answer);
        (await _machine.LookAsync()).ShouldNotBeNull(what);
        _machine.Says("/redfish/v1", answer);
        (await _machine.LookAsync()).ShouldBeOfType<Parsed<MachineLook>.Refused>(what);
        (await _machine.TriedAsync()).ShouldNotBeEmpty(what);
    }

    [Theory]
    [InlineData("{\"Events\":[{\"Message\":\"\\ud800\"}]}")]
    [InlineData("{\"Events\":[{\"\\udc00\":1}]}")]
    public void An_event_with_half_a_character_is_no_event(string said) =>
        Should.Throw<JsonException>(() => Redfish.Events.RedfishEventReading.Of(System.Text.Encoding.UTF8.GetBytes(said)));

    [Fact]
    public async Task Two_drives_under_one_address_are_told_and_nobody_guesses_which_is_in_which_array()
    {
        var (chassis, _, storage) = OneOfEach();
        var first = _machine.Drive(storage, "dk0", "1", "SER1AAAA", chassis);
        var second = _machine.Drive(storage, "dk1", "2", "SER2AAAA", chassis);
        _machine.Volume(storage, "1", "data", "RAID1", first, second);

        _machine.At(second)["@odata.id"] = first;

        (await _machine.LookAsync())
            .ShouldBeOfType<Parsed<MachineLook>.Refused>()
            .Reason.ShouldContain($"two drives have one address, '{first}'; which of them is in which array cannot be told.");
    }

    [Fact]
    public async Task A_machine_that_tells_no_serial_is_read_and_what_says_that_it_is_the_one_is_told()
    {
        var chassis = _machine.Chassis("1", null);
        var storage = _machine.Storage(_machine.System("1"), "a");
        _machine.Drive(storage, "dk0", "1", "SER1AAAA", chassis);

        var seen = await _machine.SeenAsync();

        seen.Bays.Select(b => b.Label).ShouldBe(["1"]);
        seen.Gaps.ShouldNotBeNull()
            .ShouldContain("It tells no serial of its own: that it is FSC-0901 (CHS-1) is taken from its address alone.");
    }

    [Fact]
    public async Task One_drive_that_two_storage_units_link_to_is_one()
    {
        var (chassis, system, storage) = OneOfEach();
        var drive = _machine.Drive(storage, "dk0", "1", "SER1AAAA", chassis);
        var other = _machine.Storage(system, "b");
        ((JsonArray)_machine.At(other)["Drives"]!).Add(MadeUpMachine.Link(drive));
        _machine.Volume(other, "1", "data", "RAID0", drive);

        (await _machine.SeenAsync()).Bays.Select(b => (b.Label, b.Serial, b.Array)).ShouldBe([("1", "SER1AAAA", "data")]);
    }

    [Fact]
    public async Task Every_storage_unit_of_every_system_is_read_and_what_they_call_alike_is_told_apart()
    {
        var (chassis, system, first) = OneOfEach();
        var second = _machine.Storage(system, "b");
        var third = _machine.Storage(_machine.System("2"), "c");
        foreach (var (storage, bay) in new[] { (first, 1), (second, 3), (third, 5) })
        {
            var pair = Enumerable
                .Range(0, 2)
                .Select(n => _machine.Drive(storage, $"dk{n}", $"{bay + n}", $"SER{bay + n}AAAA", chassis))
                .ToArray();
            _machine.Volume(storage, "1", "data", "RAID1", pair);
        }

        var seen = await _machine.SeenAsync();

        seen.Bays.Select(b => (b.Label, b.Name, b.Array))
            .ShouldBe([
                ("1", "a/dk0", "data (a/1)"),
                ("2", "a/dk1", "data (a/1)"),
                ("3", "b/dk0", "data (b/1)"),
                ("4", "b/dk1", "data (b/1)"),
                ("5", "c/dk0", "data (c/1)"),
                ("6", "c/dk1", "data (c/1)"),
            ]);
        seen.Arrays.ShouldAllBe(a => a.State == ArrayState.Whole && seen.MembersOf(a) == 2);
        seen.Gaps.ShouldBeNull();
    }

    [Fact]
    public async Task Two_arrays_of_one_name_in_whatever_case_are_told_apart_by_the_machines_own_ids()
    {
        var (chassis, _, storage) = OneOfEach();
        string[] drives = [.. Enumerable.Range(1, 4).Select(n => _machine.Drive(storage, $"d{n}", $"{n}", $"SER{n}AAAA", chassis))];
        _machine.Volume(storage, "7", "data", "RAID1", drives[..2]);
        _machine.Volume(storage, "9", "Data", "RAID1", drives[2..]);

        (await _machine.SeenAsync()).Bays.Select(b => b.Array).ShouldBe(["data (7)", "data (7)", "Data (9)", "Data (9)"]);
    }

    [Fact]
    public async Task A_bay_of_an_expansion_says_which_one_and_one_nobody_wrote_down_by_the_machines_own_name()
    {
        var (chassis, _, storage) = OneOfEach();
        var known = _machine.Chassis("2", "CHS-2");
        var backplane = _machine.Chassis("2-back", null, within: known);
        var unknown = _machine.Chassis("shelf", "CHS-9");
        _machine.Drive(storage, "d1", "1", "SER1AAAA", chassis);
        _machine.Drive(storage, "d2", "1", "SER2AAAA", known);
        _machine.Drive(storage, "d3", "2", "SER3AAAA", backplane);
        _machine.Drive(storage, "d4", "1", "SER4AAAA", unknown);

        (await _machine.SeenAsync()).Bays.Select(b => b.Label).Order().ShouldBe(["1", "E1/1", "E1/2", "shelf/1"]);
    }

    [Fact]
    public async Task A_chassis_that_only_holds_the_drives_is_the_machine_itself()
    {
        OneOfEach();
        var bays = _machine.Chassis("bays", null);
        _machine.Drive("/redfish/v1/Systems/1/Storage/a", "d1", "1", "SER1AAAA", bays);

        (await _machine.SeenAsync()).Bays.Single().Label.ShouldBe("1");
    }

    [Fact]
    public async Task Bay_1_at_the_front_and_bay_1_at_the_rear_are_two()
    {
        var (chassis, _, storage) = OneOfEach();
        _machine.Drive(storage, "f1", "1", "SER1AAAA", chassis, new JsonObject { ["Reference"] = "Front" });
        _machine.Drive(storage, "r1", "1", "SER2AAAA", chassis, new JsonObject { ["Reference"] = "Rear" });
        _machine.Drive(storage, "x1", "2", "SER3AAAA", chassis);
        _machine.Drive(storage, "x2", "2", "SER4AAAA", chassis);

        (await _machine.SeenAsync()).Bays.Select(b => b.Label).Order().ShouldBe(["2 (x1)", "2 (x2)", "Front 1", "Rear 1"]);
    }

    [Fact]
    public async Task What_two_controllers_both_show_is_one_drive_and_one_array()
    {
        var (chassis, _, left) = OneOfEach();
        var right = _machine.Storage(_machine.System("2"), "b");
        string[] Pair(string storage) => [.. new[] { 1, 2 }.Select(n => _machine.Drive(storage, $"d{n}", $"{n}", $"SER{n}AAAA", chassis))];
        _machine.Volume(left, "1", "data", "RAID1", Pair(left));
        _machine.Volume(right, "1", "data", "RAID1", Pair(right));

        var seen = await _machine.SeenAsync();

        seen.Bays.Select(b => (b.Label, b.Role)).ShouldBe([("1", BayRole.Member), ("2", BayRole.Member)]);
        seen.Arrays.Single().Name.ShouldBe("data");
    }

    [Fact]
    public async Task A_drive_that_cannot_be_read_is_a_gap_and_counts_for_nothing()
    {
        var (chassis, _, storage) = OneOfEach();
        string[] drives = [.. Enumerable.Range(1, 4).Select(n => _machine.Drive(storage, $"d{n}", $"{n}", $"SER{n}AAAA", chassis))];
        _machine.At(_machine.Volume(storage, "1", "data", "RAID5", drives))["CapacityBytes"] = 24_000_000_000_000;
        _machine.Breaks(drives[2]);

        var seen = await _machine.SeenAsync();

        seen.Gaps.ShouldBe([$"'{drives[2]}' answered 500 InternalServerError."]);
        (seen.Arrays[0].DesignMembers, seen.MembersOf(seen.Arrays[0]), seen.IsWhole(seen.Arrays[0])).ShouldBe((4, 3, false));
        var told = seen.WithUntold(["1", "2", "3", "4"]);
        told.BayLabelled("3")?.Role.ShouldBe(BayRole.NotKnown);
        told.Bays.Count.ShouldBe(4);
        // One more pulled would be the second that is missing.
        BayVerdict.ForAll(told).Single(v => v.Bay == "1").Verdict.ShouldNotBe(PullVerdict.Safe);
    }

    [Fact]
    public async Task Where_a_volume_cannot_be_read_nobody_says_that_its_drives_belong_to_nothing()
    {
        var (chassis, _, storage) = OneOfEach();
        var drive = _machine.Drive(storage, "d1", "1", "SER1AAAA", chassis);
        _machine.Breaks(_machine.Volume(storage, "1", "data", "RAID1", drive));

        (await _machine.SeenAsync()).BayLabelled("1")?.Role.ShouldBe(BayRole.NotKnown);

        _machine.Breaks($"{storage}/Volumes");
        var without = await _machine.SeenAsync();
        without.BayLabelled("1")?.Role.ShouldBe(BayRole.NotKnown);
        without.Gaps.ShouldBe([$"'{storage}/Volumes' answered 500 InternalServerError."]);
    }

    [Fact]
    public async Task An_array_of_a_kind_nobody_knows_hides_no_other_and_nobody_says_that_its_drives_can_be_spared()
    {
        var (chassis, _, storage) = OneOfEach();
        string[] pair =
        [
            _machine.Drive(storage, "dk0", "1", "SER1AAAA", chassis),
            _machine.Drive(storage, "dk1", "2", "SER2AAAA", chassis),
        ];
        string[] three =
        [
            _machine.Drive(storage, "dk2", "3", "SER3AAAA", chassis),
            _machine.Drive(storage, "dk3", "4", "SER4AAAA", chassis),
            _machine.Drive(storage, "dk4", "5", "SER5AAAA", chassis),
        ];
        _machine.Drive(storage, "dk5", "6", "SER6AAAA", chassis); // of none, as far as anybody can tell
        _machine.Volume(storage, "1", "data", "RAID1", pair);
        _machine.Volume(storage, "2", "woven", "RAIDX7", three);

        var seen = await _machine.SeenAsync();

        seen.Arrays.Select(a => a.Name).ShouldBe(["data"]);
        seen.Bays.Where(b => b.Array == "data").Select(b => b.Role).ShouldBe([BayRole.Member, BayRole.Member]);
        seen.Bays.Where(b => b.Array is null)
            .Select(b => (b.Label, b.Role))
            .ShouldBe([("3", BayRole.NotKnown), ("4", BayRole.NotKnown), ("5", BayRole.NotKnown), ("6", BayRole.NotKnown)]);
        seen.Gaps.ShouldNotBeNull().ShouldHaveSingleItem().ShouldStartWith("Array woven has the level 'RAIDX7'; ");
    }

    [Fact]
    public async Task A_drive_that_only_its_chassis_lists_belongs_to_nothing_only_where_every_storage_unit_was_read()
    {
        var (chassis, _, storage) = OneOfEach();
        var drive = _machine.Drive(storage, "d1", "1", "SER1AAAA", chassis);
        _machine.At(chassis)["Links"] = new JsonObject { ["Drives"] = new JsonArray(MadeUpMachine.Link(drive)) };
        _machine.Breaks(storage);

        (await _machine.SeenAsync()).BayLabelled("1")?.Role.ShouldBe(BayRole.NotKnown);
    }

    [Fact]
    public async Task A_bay_of_an_enclosure_that_cannot_be_read_is_not_taken_for_the_machines_own()
    {
        var (chassis, _, storage) = OneOfEach();
        var shelf = _machine.Chassis("2", "CHS-2");
        _machine.Drive(storage, "d1", "1", "SER1AAAA", chassis);
        _machine.Drive(storage, "d7", "7", "SER7AAAA", shelf);
        _machine.Breaks(shelf);

        (await _machine.SeenAsync()).Bays.Select(b => b.Label).Order().ShouldBe(["1", "2/7"]);
    }

    [Fact]
    public async Task A_machine_of_which_much_cannot_be_read_does_not_fill_the_record()
    {
        var (chassis, _, storage) = OneOfEach();
        _machine.Drive(storage, "d0", "0", "SER0AAAA", chassis);
        foreach (var n in Enumerable.Range(1, 80))
            _machine.Breaks(_machine.Drive(storage, $"d{n}{new string('x', 1_000)}", $"{n}", $"SER{n}AAAA", chassis));

        var gaps = (await _machine.SeenAsync()).Gaps.ShouldNotBeNull();

        (gaps.Count, gaps[^1]).ShouldBe((51, "30 more could not be read."));
        gaps.ShouldAllBe(g => g.Length < 350);

        foreach (var n in Enumerable.Range(1, 5)) // nor one that has much of a kind nobody knows
            _machine.Volume(storage, $"{n}", $"array {n}", new string('y', 1_000));
        (await _machine.SeenAsync())
            .Gaps.ShouldNotBeNull()
            .ShouldSatisfyAllConditions(
                more => (more.Count, more[^1]).ShouldBe((51, "35 more could not be read.")),
                more => more.ShouldAllBe(g => g.Length < 350)
            );
    }

    [Fact]
    public async Task A_storage_unit_that_does_not_answer_hides_no_other_and_none_at_all_is_a_refusal()
    {
        var (chassis, system, first) = OneOfEach();
        _machine.Drive(first, "d1", "1", "SER1AAAA", chassis);
        var second = _machine.Storage(system, "b");
        _machine.Drive(second, "d2", "2", "SER2AAAA", chassis);
        _machine.Breaks(second);

        var seen = await _machine.SeenAsync();
        (seen.Bays.Count, seen.Gaps?.Single()).ShouldBe((1, $"'{second}' answered 500 InternalServerError."));

        _machine.Breaks(first);
        (await _machine.LookAsync())
            .ShouldBeOfType<Parsed<MachineLook>.Refused>()
            .Reason.ShouldContain("none of its drives could be read; '");
    }

    [Fact]
    public async Task Drives_that_only_the_chassis_lists_are_seen_and_a_list_is_read_to_its_last_page()
    {
        var (chassis, _, storage) = OneOfEach();
        var inStorage = _machine.Drive(storage, "d1", "1", "SER1AAAA", chassis);
        var beside = _machine.Drive(storage, "d2", "2", "SER2AAAA");
        ((JsonArray)_machine.At(storage)["Drives"]!).RemoveAt(1);
        _machine.At(chassis)["Links"] = new JsonObject
        {
            ["Drives"] = new JsonArray(MadeUpMachine.Link(inStorage), MadeUpMachine.Link(beside)),
        };
        _machine.Put("/redfish/v1/Systems?page=2", new() { ["Members"] = new JsonArray(MadeUpMachine.Link(_machine.System("far"))) });
        ((JsonArray)_machine.At("/redfish/v1/Systems")["Members"]!).RemoveAt(1);
        _machine.At("/redfish/v1/Systems")["Members@odata.nextLink"] = "/redfish/v1/Systems?page=2";
        _machine.Drive(_machine.Storage("/redfish/v1/Systems/far", "z"), "d3", "3", "SER3AAAA", chassis);

        (await _machine.SeenAsync()).Bays.Select(b => b.Label).ShouldBe(["1", "2", "3"]);
    }

    [Fact]
    public async Task A_drive_that_is_passed_on_as_it_is_belongs_to_no_array()
    {
        var (chassis, _, storage) = OneOfEach();
        var drive = _machine.Drive(storage, "d1", "1", "SER1AAAA", chassis);
        _machine.Volume(storage, "1", "d1", "None", drive);

        var seen = await _machine.SeenAsync();

        (seen.Arrays.Count, seen.Bays.Single().Role).ShouldBe((0, BayRole.Unclaimed));
    }

    [Theory]
    [InlineData("""{"Drives":[1,"x",null,{"@odata.id":"/redfish/v1/Systems/1/Storage/a/Drives/d1"}]}""")]
    [InlineData("""{"Drives":{"@odata.id":"/redfish/v1/x"}}""")]
    [InlineData("""{"Drives":[{"@odata.id":7}]}""")]
    [InlineData("""{"Drives":[{"@odata.id":"https://elsewhere.example/redfish/v1/x"}]}""")]
    [InlineData("""{"Drives":[{"@odata.id":"/redfish/../admin"}]}""")]
    [InlineData("""{"Volumes":[]}""")]
    public async Task A_tree_that_is_not_as_the_schema_has_it_is_a_sentence_or_a_gap_and_never_a_fall(string storageHas)
    {
        var (chassis, _, storage) = OneOfEach();
        _machine.Drive(storage, "d1", "1", "SER1AAAA", chassis);
        foreach (var (name, value) in JsonNode.Parse(storageHas)!.AsObject())
            _machine.At(storage)[name] = value?.DeepClone();

        var said = await _machine.LookAsync() switch
        {
            Parsed<MachineLook>.Refused(var reason) => reason,
            Parsed<MachineLook>.Ok(var look) => $"{look.Snapshot.Bays.Count} bays",
            _ => "",
        };

        said.ShouldNotBeEmpty();
        said.ShouldNotContain("Exception");
    }

    [Fact]
    public async Task Trying_says_step_by_step_what_came_and_ends_where_it_ends()
    {
        var (chassis, _, storage) = OneOfEach();
        var drive = _machine.Drive(storage, "d1", "1", "SER1AAAA", chassis);
        _machine.Volume(storage, "1", "data", "RAID0", drive);

        var steps = await _machine.TriedAsync();
        steps.ShouldAllBe(s => s.Ok);
        steps.Single(s => s.What == "What is made of it").Came.ShouldBe("1 bay, 0 empty; data (raid0, whole, 1 of 1 members)");
        steps.Single(s => s.What == "Its chassis").Came.ShouldBe("chassis 1 (serial CHS-1)");

        _machine.At(chassis)["SerialNumber"] = "OTHER";
        var ended = await _machine.TriedAsync();
        ended[^1].Ok.ShouldBeFalse();
        (ended[^1].What, ended[^1].Came).ShouldBe(
            (
                "What is made of it",
                "FSC-0901 at http://127.0.0.1/ answered something else than expected: it is the machine with the serial OTHER, and FSC-0901 "
                    + "has CHS-1. That says nothing about its drives: look at the machine another way, or type in what its screen shows."
            )
        );

        _machine.Breaks("/redfish/v1", HttpStatusCode.Unauthorized);
        (await _machine.TriedAsync())
            .Single()
            .Came.ShouldContain("asks who one is, and no sign-in is given for it: 'nailcrow appliance sign-in FSC-0901 NAME'.");
    }
}
