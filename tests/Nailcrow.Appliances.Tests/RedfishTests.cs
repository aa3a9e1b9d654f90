using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;
using Nailcrow.Running;

namespace Nailcrow.Appliances.Tests;

public sealed class RedfishTests : IAsyncLifetime
{
    private RunningStandIn _machine = null!; // xUnit calls InitializeAsync before any test
    private ServiceProvider _services = null!;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _machine = await RunningStandIn.StartAsync();
        _services = Waiting(20); // longer than an answer takes on any machine that runs tests beside
    }

    private static ServiceProvider Waiting(int seconds) =>
        new ServiceCollection()
            .AddLogging()
            .AddSingleton(TimeProvider.System)
            .AddApplianceLinks(new() { CallDeadline = TimeSpan.FromSeconds(seconds), LookDeadline = TimeSpan.FromSeconds(3 * seconds) })
            .BuildServiceProvider();

    /// <summary>Only where nothing is going to answer: then nobody is waited for in vain.</summary>
    private async Task ImpatientAsync()
    {
        await _services.DisposeAsync();
        _services = Waiting(1);
    }

    public async ValueTask DisposeAsync()
    {
        await _services.DisposeAsync();
        await _machine.DisposeAsync();
    }

    private IApplianceLink Link => _services.GetRequiredService<IApplianceLink>();

    private Appliance Machine(string serial = "BRK12-0007") =>
        new(
            "FSC-0107",
            serial,
            "brackmere-b12",
            "Corrin",
            "Hall",
            _machine.Address.ToString(),
            [new("vault", ArrayLevel.Raid6, 6, 8_001_563_222_016), new("desk", ArrayLevel.Raid5, 4, 8_001_563_222_016)]
        );

    private async Task<MachineLook> LookAsync() => (await Link.LookAsync(Machine(), Ct)).ShouldBeOfType<Parsed<MachineLook>.Ok>().Value;

    private async Task<string> RefusalAsync(Appliance? machine = null) =>
        (await Link.LookAsync(machine ?? Machine(), Ct)).ShouldBeOfType<Parsed<MachineLook>.Refused>().Reason;

    [Fact]
    public async Task A_look_tells_twelve_bays_two_arrays_and_names_that_are_not_in_bay_order()
    {
        var seen = (await LookAsync()).Snapshot;

        seen.Bays.Count.ShouldBe(12);
        seen.Bays.Select(b => b.Name).Take(4).ShouldBe(["dk4", "dk0", "dk8", "dk5"]);
        seen.Arrays.Select(a => (a.Name, a.Level, a.State, seen.MembersOf(a)))
            .ShouldBe([("vault", ArrayLevel.Raid6, ArrayState.Whole, 6), ("desk", ArrayLevel.Raid5, ArrayState.Whole, 4)]);
        seen.Bays.Single(b => b.Role == BayRole.Spare).Label.ShouldBe("11");
        SnapshotProblems.In(seen).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_failed_drive_is_dropped_and_faulted_and_its_array_degraded()
    {
        await _machine.HandAsync("fail/2");

        var seen = (await LookAsync()).Snapshot;

        var bay = seen.BayLabelled("2");
        (bay?.Role, bay?.Health, bay?.Array).ShouldBe((BayRole.Dropped, DriveHealth.Faulted, "vault"));
        seen.Arrays[0].State.ShouldBe(ArrayState.Degraded);
    }

    [Fact]
    public async Task A_drive_that_only_warns_is_worn_and_still_a_member()
    {
        await _machine.HandAsync("warn/5");

        var bay = (await LookAsync()).Snapshot.BayLabelled("5");

        (bay?.Role, bay?.Health).ShouldBe((BayRole.Member, DriveHealth.Worn));
    }

    [Fact]
    public async Task A_rebuild_started_by_hand_shows_its_percentage_and_ends_whole()
    {
        var replacement = System
            .Text.Json.JsonDocument.Parse(await _machine.LookAsync())
            .RootElement.GetProperty("view")
            .GetProperty("table")[0]
            .GetProperty("serial")
            .GetString();
        foreach (var hand in new[] { "fail/2", "pull/2", $"insert/2/{replacement}" })
            await _machine.HandAsync(hand);
        (await LookAsync()).Snapshot.BayLabelled("2")?.Role.ShouldBe(BayRole.Unclaimed);

        await _machine.HandAsync("start/vault/2");
        var during = await LookAsync();
        during.Snapshot.BayLabelled("2")?.Role.ShouldBe(BayRole.Filling);
        during.Progress.Single().Percent.ShouldNotBeNull();

        var after = await Soon.ComesAsync(LookAsync, look => look.Snapshot.Arrays[0].State == ArrayState.Whole, Ct);
        after.Snapshot.BayLabelled("2")?.Role.ShouldBe(BayRole.Member);
    }

    [Fact]
    public async Task A_spare_that_steps_in_leaves_the_array_whole_without_what_dropped_out()
    {
        await _machine.HandAsync("fail/2");
        await _machine.HandAsync("take-over/vault");

        var seen = (await LookAsync()).Snapshot;
        (seen.Arrays[0].State, seen.MembersOf(seen.Arrays[0])).ShouldBe((ArrayState.Whole, 6));
        (seen.BayLabelled("11")?.Role, seen.BayLabelled("11")?.Array).ShouldBe((BayRole.Member, "vault"));
    }

    [Fact]
    public async Task A_failed_drive_that_is_still_listed_is_a_member_that_has_failed_and_does_not_count()
    {
        await _machine.HandAsync("fail-listed/2");

        var seen = (await LookAsync()).Snapshot;
        var bay = seen.BayLabelled("2");
        (bay?.Role, bay?.Health).ShouldBe((BayRole.Member, DriveHealth.Faulted));
        (seen.Arrays[0].State, seen.MembersOf(seen.Arrays[0])).ShouldBe((ArrayState.Whole, 5));
    }

    [Fact]
    public async Task A_bay_that_takes_no_drive_shows_none_and_a_vague_machine_says_that_it_rebuilds_and_not_how_far()
    {
        await _machine.HandAsync("fail/2");
        await _machine.HandAsync("start/vault/11");
        await _machine.HandAsync("behave/vague");
        await _machine.HandAsync("refuse/5");

        var look = await LookAsync();
        look.Snapshot.BayLabelled("5")?.Role.ShouldBe(BayRole.Empty);
        look.Snapshot.BayLabelled("11")?.Role.ShouldBe(BayRole.Filling);
        look.Progress.Single().Percent.ShouldBeNull();
    }

    [Fact]
    public async Task A_second_drive_fails_when_the_rebuild_has_come_so_far_and_after_a_restart_it_begins_anew()
    {
        await using var slow = await RunningStandIn.StartAsync(rebuildSeconds: 60);
        await slow.HandAsync("fail/2");
        await slow.HandAsync("fail-at/3/0.5");
        await slow.HandAsync("start/vault/11");
        var failed = await Soon.ComesAsync(slow.LookAsync, seen => seen.Contains("Failed\"}", StringComparison.Ordinal), Ct);
        failed.ShouldContain("The drive in bay 3");

        await slow.HandAsync("restart");
        (await slow.LookAsync()).ShouldContain("It has restarted.");
    }

    [Fact]
    public async Task The_locator_light_goes_on_and_off()
    {
        (await Link.SwitchLightAsync(Machine(), true, Ct)).ShouldBe(new Parsed<bool>.Ok(true));
        (await LookAsync()).LocatorOn.ShouldBe(true);
        await Link.SwitchLightAsync(Machine(), false, Ct);
        (await LookAsync()).LocatorOn.ShouldBe(false);
    }

    private string Told(string what) =>
        $"FSC-0107 at {_machine.Address} {what} That says nothing about its drives: look at the machine another way, or type in what its screen shows.";

    [Theory]
    [InlineData("hangs", "did not answer within 1 s.")]
    [InlineData("garbage", "answered something that is not JSON.")]
    [InlineData("flood", "answered more than 4 MiB; that is no drive list.")]
    public async Task A_machine_that_hangs_babbles_or_floods_is_given_up_on_with_a_sentence(string manner, string what)
    {
        if (manner == "hangs")
            await ImpatientAsync();
        await _machine.HandAsync($"behave/{manner}");

        (await RefusalAsync()).ShouldBe(Told(what));
    }

    [Fact]
    public async Task A_machine_that_keeps_hanging_is_left_alone_for_a_moment()
    {
        await ImpatientAsync();
        await _machine.HandAsync("behave/hangs");
        for (var calls = 0; calls < 5; calls++)
            await RefusalAsync();

        (await RefusalAsync()).ShouldBe(Told("has not been answering and is left alone for a moment."));
    }

    [Fact]
    public async Task Another_machine_at_the_address_is_not_taken_for_this_one()
    {
        var moved = Machine("BRK12-9999");

        (await RefusalAsync(moved)).ShouldBe(
            Told("answered something else than expected: it is the machine with the serial BRK12-0007, and FSC-0107 has BRK12-9999.")
        );
        (await Link.SwitchLightAsync(moved, true, Ct)).ShouldBeOfType<Parsed<bool>.Refused>();
        (await LookAsync()).LocatorOn.ShouldBe(false);
    }

    [Fact]
    public async Task A_machine_without_an_address_is_read_by_hand() =>
        (await RefusalAsync(Machine() with { Address = null })).ShouldBe(
            "FSC-0107 has no management address; type in what its screen shows."
        );
}
