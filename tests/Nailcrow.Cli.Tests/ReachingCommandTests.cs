using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>A machine that asks who one is, from the terminal.</summary>
public sealed class ReachingCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private const string Asset = "FSC-0107";

    [Fact]
    public async Task A_machine_is_tried_trusted_signed_in_to_and_read()
    {
        await using var machine = await RunningStandIn.GuardedAsync();
        await use.Command.DoneAsync("appliance", "correct", Asset, "--address", machine.TlsAddress.ToString(), "--as", "lioth");

        var unknown = await use.Command.RunAsync("appliance", "try", Asset, "--as", "lioth");
        unknown.Code.ShouldBe(1);
        unknown.Output.ShouldContain("shows a certificate that nobody has looked at yet");
        unknown.Error.ShouldBe($"{Asset} cannot be read.\n");
        (await use.Command.DoneAsync("appliance", "access", Asset, "--as", "lioth")).ShouldContain(
            "waits for a yes  CN=management, until "
        );

        (await use.Command.DoneAsync("appliance", "access", "--as", "lioth")).ShouldBe(
            $"{Asset}  shows a certificate that waits for a yes\n"
        );

        (await use.Command.RunWithInputAsync("no\n", "appliance", "trust", Asset, "--as", "lioth")).Error.ShouldEndWith(
            "Nothing was changed; nothing is sent to it.\n"
        );
        var trusted = await use.Command.RunWithInputAsync("yes\n", "appliance", "trust", Asset, "--as", "lioth");
        trusted.Output.ShouldContain("yes said by lioth on ");

        var wrong = await use.Command.RunWithAsync(
            new() { ["NAILCROW_MACHINE_SECRET"] = "not it" },
            "appliance",
            "sign-in",
            Asset,
            "service",
            "--as",
            "lioth"
        );
        wrong.Output.ShouldContain("sign-in      service, by a session, secret kept encrypted; given by lioth on ");
        (await use.Command.RunAsync("bays", Asset, "--as", "ilka")).Error.ShouldContain("does not let 'service' in");

        await use.Command.RunWithInputAsync(
            $"{RunningStandIn.MachineSecret}\n",
            "appliance",
            "sign-in",
            Asset,
            "service",
            "--way",
            "basic",
            "--as",
            "lioth"
        );
        var read = await use.Command.DoneAsync("appliance", "try", Asset, "--as", "ilka");
        read.ShouldContain("one signs in as 'service', by name and secret with each call");
        read.ShouldContain("12 bays, 1 empty; vault (raid6, whole, 6 of 6 members), desk (raid5, whole, 4 of 4 members)");
        read.ShouldEndWith($"{Asset} can be read.\n");
        read.ShouldNotContain(RunningStandIn.MachineSecret);

        await machine.HandAsync("behave/patchy");
        (await use.Command.DoneAsync("bays", Asset, "--as", "ilka")).ShouldContain(
            "! not read: '/redfish/v1/Systems/1/Storage/1/Drives/dk1'"
        );
        (await use.Command.DoneAsync("appliance", "sign-in-no-more", Asset, "--as", "lioth")).ShouldBe($"{Asset} is asked as anybody.\n");
        (await use.Command.RunAsync("bays", Asset, "--as", "ilka")).Error.ShouldContain("no sign-in is given for it");
        await use.Command.DoneAsync("appliance", "correct", Asset, "--address", "none", "--as", "lioth");
    }

    [Fact]
    public async Task What_is_not_so_is_refused_with_what_would_be_accepted()
    {
        (await use.Command.RunAsync("appliance", "trust", "FSC-0108", "--as", "lioth")).Error.ShouldContain(
            "has shown no certificate that waits for a yes; 'nailcrow appliance try FSC-0108' has it show one."
        );
        (await use.Command.RunAsync("appliance", "sign-in", Asset, "service", "--way", "magic", "--as", "lioth")).Error.ShouldContain(
            "session, basic"
        );
        (await use.Command.RunAsync("appliance", "access", Asset, "--as", "ilka")).Code.ShouldBe(4);
        (await use.Command.RunAsync("appliance", "correct", Asset, "--address", "ftp://10.0.0.7", "--as", "lioth")).Error.ShouldBe(
            $"Appliance {Asset} has the address 'ftp://10.0.0.7'; write one like https://10.0.0.7.\n"
        );
        (await use.Command.RunAsync("appliance", "correct", Asset, "--address", "https://a:b@10.0.0.7", "--as", "lioth")).Error.ShouldBe(
            $"Appliance {Asset} has a name or a secret in its address; those are given apart, and kept encrypted.\n"
        );
    }
}
