using Nailcrow.Running;

namespace Nailcrow.Service.Tests;

/// <summary>Some bad days are those of a file, and some tests look into it; on a server there is none.</summary>
internal static class AboutTheFile
{
    public static void Only() => Assert.SkipWhen(RunningService.OnServer, "It is about the file.");
}
