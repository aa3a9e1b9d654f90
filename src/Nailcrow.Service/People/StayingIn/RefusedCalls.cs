using System.Collections.Concurrent;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People.StayingIn;

/// <summary>
/// Notes what somebody's roles did not allow: our own pages offer none of it, so it is a slip, or somebody tries doors. Of each person one
/// in a while, so that the log is not filled by whoever wants it full.
/// </summary>
internal sealed class RefusedCalls(SecurityLog log, ILogger<RefusedCalls> logger)
{
    private const int LongestPath = 200;

    private static readonly TimeSpan Between = TimeSpan.FromSeconds(10);

    private readonly ConcurrentDictionary<string, long> _noted = new();

    public async Task NoteAsync(HttpContext http, Stand stand)
    {
        var now = Environment.TickCount64;
        if (_noted.TryGetValue(stand.Name, out var last) && now - last < Between.TotalMilliseconds)
            return;
        _noted[stand.Name] = now;
        var path = Visible.Text(http.Request.Path.Value ?? "");
        var told = $"{http.Request.Method} {Shortened.To(path, LongestPath)}{(stand.Key ? ", by a key" : "")}";
        try
        {
            await log.WriteAsync(new(stand.Name, http.Address()), SecurityEvent.CallRefused, null, told, CancellationToken.None);
        }
        catch (Exception e)
        {
            // It was answered already; a full disk must not make that a broken answer.
            logger.LogWarning(e, "A refused call of {Name} was not noted", stand.Name);
        }
    }
}
