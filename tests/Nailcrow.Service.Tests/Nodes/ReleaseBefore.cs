using System.Diagnostics;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Nodes;

/// <summary>The release before this one, built once from our own history.</summary>
internal static class ReleaseBefore
{
    /// <returns>Where its service is; its docs/openapi.json lies beside it.</returns>
    public static async Task<string> ServiceAsync(CancellationToken ct)
    {
        var start = new ProcessStartInfo(Path.Combine(Built.Root, "tools", "release-before.sh"))
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        using var process = Process.Start(start) ?? throw new InvalidOperationException("It did not start.");
        var (said, wrong) = (process.StandardOutput.ReadToEndAsync(ct), process.StandardError.ReadToEndAsync(ct));
        await process.WaitForExitAsync(ct);
        Assert.SkipWhen(process.ExitCode == 3, await wrong);
        process.ExitCode.ShouldBe(0, await wrong);
        return (await said).Trim();
    }
}
