namespace Nailcrow.Service.Host.OverTime;

/// <summary>When to begin with what nobody waits for.</summary>
internal static class AfterTheStart
{
    // Whoever starts a service asks at once whether it is ready; that first answer should not share its cores with anything.
    private static readonly TimeSpan Breath = TimeSpan.FromMilliseconds(500);

    /// <summary>Done a breath after the service has begun to listen.</summary>
    public static async Task CalmAsync(this IHostApplicationLifetime life, CancellationToken ct)
    {
        // Not inline: whatever goes on in the callback of a start holds the start up, and the word where to go.
        var started = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        await using var registered = life.ApplicationStarted.Register(started.SetResult);
        await started.Task.WaitAsync(ct);
        await Task.Delay(Breath, ct);
    }
}
