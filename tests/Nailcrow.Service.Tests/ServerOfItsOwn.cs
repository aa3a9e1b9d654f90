using Nailcrow.Running;

namespace Nailcrow.Service.Tests;

/// <summary>
/// Whatever keeps the record of all other tests, some start a server for themselves. They run where the others are on a file, and not
/// once more.
/// </summary>
internal static class ServerOfItsOwn
{
    public static Task<RunningPostgres> StartAsync()
    {
        OnceIsEnough();
        return RunningPostgres.StartAsync();
    }

    public static void OnceIsEnough() =>
        Assert.SkipWhen(RunningService.OnServer, "It has a server of its own in any run, and is run beside the file's.");
}
