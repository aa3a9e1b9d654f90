namespace Nailcrow.Running;

/// <summary>What comes about by itself within moments.</summary>
public static class Soon
{
    private static readonly TimeSpan AtMost = TimeSpan.FromMinutes(4); // on a processor that others have taken too

    /// <summary>Asks until it is so.</summary>
    /// <exception cref="TimeoutException">It did not come about.</exception>
    public static async Task IsAsync(Func<Task<bool>> ask, CancellationToken ct)
    {
        var from = DateTimeOffset.UtcNow;
        while (!await ask())
        {
            if (DateTimeOffset.UtcNow - from > AtMost)
                throw new TimeoutException($"It did not come about within {AtMost.TotalMinutes} minutes.");
            await Task.Delay(100, ct);
        }
    }
}
