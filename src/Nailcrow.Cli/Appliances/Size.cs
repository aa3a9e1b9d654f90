using Nailcrow.Cli.Shell;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Appliances;

/// <summary>Sizes on the command line; see <see cref="ByteSize"/>.</summary>
internal static class Size
{
    public static string Both(long bytes) => ByteSize.Both(bytes);

    public static long Parse(string text) =>
        ByteSize.Parse(text) switch
        {
            Parsed<long>.Ok(var bytes) => bytes,
            Parsed<long>.Refused(var reason) => throw new UsageProblem(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
}
