using Nailcrow.ManyLives;

/// <summary>
/// Named in DOTNET_STARTUP_HOOKS, it keeps the program from beginning and begins it as often as it is asked to. What is begun
/// is the program a user starts, with the same words on its command line.
/// </summary>
internal static class StartupHook
{
    public static void Initialize()
    {
        if (Environment.GetEnvironmentVariable(LivesDoor.Variable) is { Length: > 0 } socket)
            LivesDoor.KeepAsync(socket).GetAwaiter().GetResult();
    }
}
