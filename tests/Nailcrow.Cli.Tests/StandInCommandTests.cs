using System.Diagnostics;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>The stand-in's own command ends as nailcrow's does.</summary>
public sealed class StandInCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private static async Task<(int Code, string Said)> RunAsync(params string[] arguments)
    {
        var start = new ProcessStartInfo("dotnet", [Built.StandIn, .. arguments])
        {
            RedirectStandardError = true,
            RedirectStandardOutput = true,
        };
        using var process = Process.Start(start) ?? throw new InvalidOperationException("dotnet did not start.");
        var (output, error) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        return (process.ExitCode, await output + await error);
    }

    [Fact]
    public async Task Where_none_is_running_a_hand_is_told_so_in_one_line()
    {
        var ended = await RunAsync("pull", "2", "--at", "http://127.0.0.1:9");

        ended.ShouldBe((3, "No stand-in answers there. 'nailcrow-standin run' starts one; --at says where.\n"));
    }

    [Fact]
    public async Task A_port_that_is_taken_is_told_in_one_line()
    {
        var ended = await RunAsync("run", "--port", $"{use.Machine.Address.Port}");

        ended.Code.ShouldBe(1);
        ended.Said.ShouldContain("address already in use");
        ended.Said.Trim().Split('\n').Length.ShouldBe(1, ended.Said);
    }

    [Theory, InlineData("pul", "pull"), InlineData("lok", "look")]
    public async Task A_mistyped_hand_is_told_the_nearest_one(string typed, string meant)
    {
        var ended = await RunAsync(typed, "2");

        ended.Code.ShouldBe(2);
        ended.Said.ShouldContain($"Did you mean '{meant}'?");
        ended.Said.Trim().Split('\n').Length.ShouldBe(1, ended.Said);
    }

    [Fact]
    public async Task It_plays_the_bad_days_on_command()
    {
        await using var machine = await RunningStandIn.StartAsync();
        async Task<string> HandAsync(params string[] arguments) => (await RunAsync([.. arguments, "--at", $"{machine.Address}"])).Said;
        async Task<string> LooksAsync() => await HandAsync("look");

        (await HandAsync("take-over", "vault")).ShouldContain("the spare has nothing to step in for");
        await HandAsync("fail", "2");
        (await HandAsync("take-over", "vault")).ShouldContain("vault is whole.");
        (await HandAsync("take-over", "desk")).ShouldContain("is in use already");
        (await HandAsync("fail-listed", "7")).ShouldContain("is listed as before");
        (await LooksAsync()).ShouldContain("\"condition\":\"Failed\"");
        (await HandAsync("fail-at", "3", "140")).ShouldContain("accepted: 0 to 100.");
        (await HandAsync("refuse", "12")).ShouldContain("Bay 12 takes no drive.");
        (await HandAsync("refuse", "12")).ShouldContain("takes drives again.");
        (await HandAsync("behave", "vague")).ShouldContain("behaves: vague");
        (await HandAsync("restart")).ShouldContain("It has restarted.");
    }
}
