using System.Text.Json;

namespace Nailcrow.Running;

/// <summary>What comes about by itself within moments: the one place where a test waits, always for something that it can see.</summary>
public static class Soon
{
    private static readonly TimeSpan AtMost = TimeSpan.FromMinutes(4); // on a processor that others have taken too

    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(100);

    /// <summary>Asks until it is so.</summary>
    /// <exception cref="TimeoutException">It did not come about.</exception>
    public static Task IsAsync(Func<Task<bool>> ask, CancellationToken ct) => ComesAsync(ask, isSo => isSo, ct);

    /// <summary>Looks until what is seen is as it has to be.</summary>
    /// <returns>What was seen then.</returns>
    /// <exception cref="TimeoutException">It never was; with what was seen last.</exception>
    public static async Task<T> ComesAsync<T>(Func<Task<T>> look, Func<T, bool> isSo, CancellationToken ct)
    {
        var from = DateTimeOffset.UtcNow;
        while (true)
        {
            var seen = await look();
            if (isSo(seen))
                return seen;
            if (DateTimeOffset.UtcNow - from > AtMost)
                throw new TimeoutException($"It did not come about within {AtMost.TotalMinutes} minutes: {JsonSerializer.Serialize(seen)}");
            await Task.Delay(Pause, ct);
        }
    }

    /// <summary>Looks until there is something.</summary>
    /// <exception cref="TimeoutException">There never was.</exception>
    public static async Task<T> ComesAsync<T>(Func<Task<T?>> look, CancellationToken ct)
        where T : class => (await ComesAsync(look, seen => seen is not null, ct))!;
}
