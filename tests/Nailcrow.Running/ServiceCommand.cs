using System.Diagnostics;

namespace Nailcrow.Running;

/// <summary>What is done on the machine itself with the service's own program, such as <c>nailcrow-service admit</c>.</summary>
public static class ServiceCommand
{
    public static async Task<(int Code, string Said)> RunAsync(CancellationToken ct, params string[] words)
    {
        var start = new ProcessStartInfo("dotnet", [Built.Service, .. words])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        using var process = Process.Start(start) ?? throw new InvalidOperationException("dotnet is not there.");
        var wrong = process.StandardError.ReadToEndAsync(ct);
        var said = await process.StandardOutput.ReadToEndAsync(ct) + await wrong;
        await process.WaitForExitAsync(ct);
        return (process.ExitCode, said);
    }
}
