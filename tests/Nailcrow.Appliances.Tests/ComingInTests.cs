using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.Terms;
using Nailcrow.Running;

namespace Nailcrow.Appliances.Tests;

/// <summary>A machine that asks who one is, and shows a certificate it signed itself.</summary>
public sealed class ComingInTests : IAsyncLifetime
{
    private readonly Ring _keys = new();
    private RunningStandIn _machine = null!; // xUnit calls InitializeAsync before any test
    private ServiceProvider _services = null!;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _machine = await RunningStandIn.GuardedAsync();
        _services = new ServiceCollection()
            .AddLogging()
            .AddSingleton(TimeProvider.System)
            .AddSingleton<IMachineKeys>(_keys)
            .AddApplianceLinks(new() { CallDeadline = TimeSpan.FromSeconds(20), LookDeadline = TimeSpan.FromSeconds(60) })
            .BuildServiceProvider();
    }

    public async ValueTask DisposeAsync()
    {
        await _services.DisposeAsync();
        await _machine.DisposeAsync();
    }

    private sealed class Ring : IMachineKeys
    {
        public MachineKey Key { get; set; } = new();

        public ShownCertificate? Offered { get; private set; }

        public Task<MachineKey> OfAsync(Appliance appliance, Uri address, CancellationToken ct) => Task.FromResult(Key);

        public Task OfferedAsync(Appliance appliance, Uri address, ShownCertificate certificate, CancellationToken ct)
        {
            Offered = certificate;
            return Task.CompletedTask;
        }

        public Task KnownAgainAsync(Appliance appliance, CancellationToken ct)
        {
            Offered = null;
            return Task.CompletedTask;
        }
    }

    private string Print => ShownCertificate.Fingerprint(_machine.Certificate).ShouldNotBeNull();

    private async Task<string> SaidAsync(Uri? at = null, string asset = "FSC-0107") =>
        await _services.GetRequiredService<IApplianceLink>().LookAsync(At(at ?? _machine.TlsAddress) with { Asset = asset }, Ct) switch
        {
            Parsed<MachineLook>.Ok(var look) => $"{look.Snapshot.Bays.Count} bays",
            Parsed<MachineLook>.Refused(var reason) => reason,
            _ => "",
        };

    private static Appliance At(Uri address) => new("FSC-0107", "BRK12-0007", "brackmere-b12", "Corrin", "Hall", address.ToString());

    [Fact]
    public async Task Nothing_is_sent_before_somebody_looked_at_its_certificate_and_another_one_is_looked_at_anew()
    {
        _keys.Key = new("service", RunningStandIn.MachineSecret, Version: "1");

        (await SaidAsync()).ShouldContain("shows a certificate that nobody has looked at yet (SHA-256 ");
        _keys.Offered.ShouldNotBeNull().Sha256.ShouldBe(Print);
        _keys.Offered.Subject.ShouldBe("CN=management");
        (await SaidAsync()).ShouldContain(_keys.Offered.Pairs);

        _keys.Key = _keys.Key with { Trusted = Print, Waits = true };
        (await SaidAsync()).ShouldBe("12 bays");
        _keys.Offered.ShouldBeNull();

        await _machine.HandAsync("new-certificate");
        _keys.Key = _keys.Key with { Trusted = new string('a', 64) };
        (await SaidAsync()).ShouldContain("shows another certificate than the one somebody said yes to (SHA-256 ");
        _keys.Offered.ShouldNotBeNull().Sha256.ShouldNotBe(Print);
    }

    [Theory]
    [InlineData(SignInWay.Session)]
    [InlineData(SignInWay.Basic)]
    public async Task It_is_read_by_whoever_it_knows_and_by_nobody_else(SignInWay way)
    {
        _keys.Key = new(Trusted: Print);
        (await SaidAsync()).ShouldContain("asks who one is, and no sign-in is given for it");

        _keys.Key = new("service", "a-wrong-secret", way, "1", Print);
        (await SaidAsync()).ShouldContain("does not let 'service' in: the name or the secret is not right (any more)");

        _keys.Key = new("service", RunningStandIn.MachineSecret, way, "2", Print);
        (await SaidAsync()).ShouldBe("12 bays");
    }

    [Fact]
    public async Task A_session_that_the_machine_forgot_is_begun_anew_and_nobody_notices()
    {
        _keys.Key = new("service", RunningStandIn.MachineSecret, Version: "1", Trusted: Print);
        (await SaidAsync()).ShouldBe("12 bays");

        await _machine.HandAsync("forget-sessions");

        (await SaidAsync()).ShouldBe("12 bays");
    }

    [Fact]
    public async Task Two_appliances_at_one_address_have_a_session_each_and_none_is_left_at_the_machine_when_the_service_goes()
    {
        _keys.Key = new("service", RunningStandIn.MachineSecret, Version: "1", Trusted: Print);
        for (var look = 0; look < 3; look++)
        {
            (await SaidAsync()).ShouldBe("12 bays");
            (await SaidAsync(asset: "FSC-0108")).ShouldBe("12 bays");
        }
        (await _machine.SignedInAsync()).ShouldBe(2);

        _keys.Key = _keys.Key with { Version = "2" }; // given anew
        (await SaidAsync()).ShouldBe("12 bays");
        await Soon.IsAsync(async () => await _machine.SignedInAsync() == 2, Ct);

        await _services.DisposeAsync();

        (await _machine.SignedInAsync()).ShouldBe(0);
    }

    [Fact]
    public async Task A_machine_that_says_something_senseless_of_where_its_session_is_does_not_keep_it_either()
    {
        using var connections = new MachineConnections(new AllowedAddresses([]));
        var sessions = new MachineSessions(connections);
        foreach (var asset in new[] { "FSC-0107", "FSC-0108" })
            await sessions.OfAsync(
                asset,
                "http://127.0.0.1",
                "1",
                () => Task.FromResult(new MachineSession("token", () => throw new Redfish.RedfishException("it links outside of itself."))),
                Ct
            );

        await sessions.DisposeAsync();
    }

    [Fact]
    public async Task A_machine_that_hangs_does_not_keep_a_service_that_goes()
    {
        _keys.Key = new("service", RunningStandIn.MachineSecret, Version: "1", Trusted: Print);
        (await SaidAsync()).ShouldBe("12 bays");
        await _machine.HandAsync("behave/hangs");

        await _services.DisposeAsync().AsTask().WaitAsync(TimeSpan.FromSeconds(30), Ct);
    }

    [Fact]
    public async Task Its_light_and_its_events_are_behind_the_same_door()
    {
        _keys.Key = new("service", RunningStandIn.MachineSecret, Version: "1", Trusted: Print);
        var link = _services.GetRequiredService<IApplianceLink>();
        var events = _services.GetRequiredService<IMachineEvents>();

        (await link.SwitchLightAsync(At(_machine.TlsAddress), true, Ct)).ShouldBe(new Parsed<bool>.Ok(true));
        var stream = (await events.StreamAsync(At(_machine.TlsAddress), Ct))
            .ShouldBeOfType<Parsed<IAsyncEnumerable<MachineEvent>>.Ok>()
            .Value;
        await using var told = stream.GetAsyncEnumerator(Ct);
        var first = told.MoveNextAsync();
        await Soon.IsAsync(
            async () =>
            {
                await _machine.HandAsync("warn/5"); // until it listens, nobody hears it
                return first.IsCompleted;
            },
            Ct
        );
        (await first).ShouldBeTrue();

        _keys.Key = new(Trusted: Print);
        (await link.SwitchLightAsync(At(_machine.TlsAddress), false, Ct)).ShouldBeOfType<Parsed<bool>.Refused>();
        (await events.StreamAsync(At(_machine.TlsAddress), Ct)).ShouldBeOfType<Parsed<IAsyncEnumerable<MachineEvent>>.Refused>();
    }

    [Fact]
    public async Task A_second_enclosure_whose_drives_and_arrays_have_the_same_names_is_read_with_the_first()
    {
        await using var both = await RunningStandIn.GuardedAsync(expansion: true);
        _keys.Key = new("service", RunningStandIn.MachineSecret, Version: "1", Trusted: ShownCertificate.Fingerprint(both.Certificate));
        var appliance = At(both.TlsAddress) with { Expansions = [new("E1", "brackmere-b12", "BRK12-0507")] };
        await both.HandAsync("fail/2");

        var look = (await _services.GetRequiredService<IApplianceLink>().LookAsync(appliance, Ct)).ShouldBeOfType<Parsed<MachineLook>.Ok>();
        var seen = look.Value.Snapshot;

        seen.Bays.Count.ShouldBe(24);
        (seen.BayLabelled("2")?.Role, seen.BayLabelled("2")?.Name, seen.BayLabelled("2")?.Array).ShouldBe(
            (BayRole.Dropped, "1/dk0", "vault (1/vault)")
        );
        (seen.BayLabelled("E1/2")?.Role, seen.BayLabelled("E1/2")?.Name, seen.BayLabelled("E1/2")?.Array).ShouldBe(
            (BayRole.Member, "2/dk0", "vault (2/vault)")
        );
        seen.Arrays.Count.ShouldBe(4);
    }

    [Fact]
    public async Task A_sign_in_that_may_not_be_used_is_not_and_says_why()
    {
        _keys.Key = new("service", null, Problem: "is not signed in to: its secret was kept under keys that are gone; give it anew.");

        (await SaidAsync(_machine.Address)).ShouldBe(
            $"FSC-0107 at {_machine.Address} is not signed in to: its secret was kept under keys that are gone; give it anew. That says "
                + "nothing about its drives: look at the machine another way, or type in what its screen shows."
        );
    }
}
