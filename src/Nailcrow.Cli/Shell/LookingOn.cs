using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;

namespace Nailcrow.Cli.Shell;

/// <summary>
/// What looks on for hours outlives a service that is started anew and a line that drops: it says so once and looks again. Only a service
/// that is away for very long ends it, as nobody sits beside to see it.
/// </summary>
internal sealed class LookingOn(Call call)
{
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(30);

    private DateTimeOffset? _heard;

    private bool _silent;

    /// <summary>Null while nobody answers. What was never heard at all is a wrong address or nobody there, and is thrown.</summary>
    public async Task<T?> AskAsync<T>(Func<Task<T>> ask)
        where T : class
    {
        try
        {
            var answer = await ask();
            if (_silent)
                Say($"{call.Service} answers again.");
            (_heard, _silent) = (DateTimeOffset.UtcNow, false);
            return answer;
        }
        catch (Exception e) when (_heard is { } heard && DateTimeOffset.UtcNow - heard < Longest && Silence.Is(e, call.Ct))
        {
            if (!_silent)
                Say($"{call.Service} does not answer for now. It is asked again; Ctrl-C leaves, and nothing is lost by it.");
            _silent = true;
            return null;
        }
    }

    private void Say(string sentence)
    {
        if (!call.Json)
            call.Screen.Line($"{DateTime.UtcNow:HH:mm:ss} UTC  {Screen.Safe(sentence)}");
    }
}
