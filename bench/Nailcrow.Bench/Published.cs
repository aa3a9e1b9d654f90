using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>What bench/run.sh published, as it would be put into use.</summary>
internal static class Published
{
    private static readonly string Folder = Path.Combine(Built.Root, ".build", "bench");

    public static readonly string Service = Path.Combine(Folder, "service", "nailcrow-service.dll");
    public static readonly string BareWeb = Path.Combine(Folder, "bare-web", "bare-web.dll");
    public static readonly string Command = Path.Combine(Folder, "command", "nailcrow");
    public static readonly string BareCommand = Path.Combine(Folder, "bare-command", "bare-command");
}
