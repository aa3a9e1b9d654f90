using System.Reflection;

namespace Nailcrow.Cli.Shell;

internal static class ThisVersion
{
    public static string Text { get; } =
        typeof(ThisVersion).Assembly.GetCustomAttribute<AssemblyInformationalVersionAttribute>()?.InformationalVersion ?? "unknown";
}
