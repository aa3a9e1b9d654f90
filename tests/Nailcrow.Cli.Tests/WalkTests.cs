using System.Diagnostics;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

[Takes(420)]
public class WalkTests
{
    [Theory]
    [InlineData("walk.sh", "everything was as it should be.")] // one ticket from the fault to its closing, a restart, and a backup put back
    [InlineData("walk.sh", "one was killed; everything was as it should be.", "2")] // two nodes, and one is killed in the middle of the rebuild
    [InlineData("restarts.sh", "The demo is after a restart what it was before.")]
    public async Task What_the_demo_plays_comes_to_its_end(string script, string end, string nodes = "0")
    {
        var bin = Directory.CreateTempSubdirectory("nailcrow-bin-").FullName;
        foreach (var program in Built.Programs)
            File.CreateSymbolicLink(Path.Combine(bin, Path.GetFileName(program)), program);
        var start = new ProcessStartInfo("bash", [Path.Combine(Built.Root, "demo", script)])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            Environment = { ["NAILCROW_BIN"] = bin, ["NAILCROW_WALK_NODES"] = nodes },
        };

        using var walk = Process.Start(start) ?? throw new InvalidOperationException("bash did not start.");
        var (output, error) = (
            walk.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken),
            walk.StandardError.ReadToEndAsync(TestContext.Current.CancellationToken)
        );
        await walk.WaitForExitAsync(TestContext.Current.CancellationToken);

        var told = await output;
        walk.ExitCode.ShouldBe(0, $"{told[^Math.Min(told.Length, 1500)..]}\n{await error}");
        told.ShouldContain(end);
        Directory.Delete(bin, recursive: true);
    }
}
