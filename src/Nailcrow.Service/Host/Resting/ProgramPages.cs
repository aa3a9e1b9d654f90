using System.Globalization;
using System.Runtime.InteropServices;

namespace Nailcrow.Service.Host.Resting;

/// <summary>
/// Pages of program files that a start has read and a service at rest does not: half of what it is resident with. They are given back
/// once it is calm; whatever is needed again the kernel maps again, from its own cache of files.
/// </summary>
/// <remarks>
/// Only pages that hold nothing but what the file holds: a mapping nobody can write to, with no page of its own by the kernel's count
/// (proc(5), <c>smaps</c>). For such, <c>MADV_DONTNEED</c> of madvise(2) loses nothing. And only of programs that stay loaded to the end:
/// where a mapping went between being counted and being given back, its place could be somebody else's memory.
/// </remarks>
internal static partial class ProgramPages
{
    private const string OwnMappings = "/proc/self/smaps";
    private const int DontNeed = 4;

    /// <summary>Gives back what can be; does nothing where the kernel is another.</summary>
    /// <returns>How many bytes were resident of what was given back.</returns>
    public static long GiveBack()
    {
        if (!OperatingSystem.IsLinux() || !File.Exists(OwnMappings))
            return 0;
        long given = 0;
        var stay = ThatStay();
        foreach (var mapping in Mapping.AllOf(File.ReadLines(OwnMappings)).Where(m => m.HoldsOnlyItsFile && stay.Contains(m.File)).ToList())
            if (Advise(mapping.From, mapping.Length, DontNeed) == 0)
                given += mapping.Resident;
        return given;
    }

    /// <summary>What is loaded and never unloaded: assemblies outside of contexts that can be collected, and the runtime itself.</summary>
    private static HashSet<string> ThatStay() =>
        [
            .. AppDomain.CurrentDomain.GetAssemblies().Where(a => a is { IsDynamic: false, IsCollectible: false }).Select(a => a.Location),
            .. Directory.GetFiles(RuntimeEnvironment.GetRuntimeDirectory(), "lib*clr*.so"),
        ];

    [LibraryImport("libc", EntryPoint = "madvise")]
    private static partial int Advise(nint from, nuint length, int advice);

    /// <summary>One mapping as the kernel tells it: a line with its range, rights and file, then a line for each count, in kB.</summary>
    internal sealed record Mapping(nint From, nuint Length, string Rights, string File)
    {
        public long Resident { get; private set; }

        private long Own { get; set; }

        public bool HoldsOnlyItsFile => !Rights.Contains('w') && Own == 0;

        public static IEnumerable<Mapping> AllOf(IEnumerable<string> lines)
        {
            Mapping? mapping = null;
            foreach (var words in lines.Select(l => l.Split(' ', 6, StringSplitOptions.RemoveEmptyEntries)))
            {
                if (!words[0].EndsWith(':'))
                {
                    if (mapping is not null)
                        yield return mapping;
                    mapping = Begun(words);
                }
                else
                    mapping?.Count(words);
            }
            if (mapping is not null)
                yield return mapping;
        }

        private static Mapping Begun(string[] words)
        {
            var range = words[0].Split('-').Select(a => ulong.Parse(a, NumberStyles.HexNumber, CultureInfo.InvariantCulture)).ToList();
            return new((nint)range[0], (nuint)(range[1] - range[0]), words[1], words.Length > 5 ? words[5] : "");
        }

        private void Count(string[] words)
        {
            if (words[0] == "Rss:")
                Resident = Bytes(words[1]);
            // What of it was written to before the right to write was taken away: relocated addresses, for one.
            if (words[0] is "Anonymous:" or "Private_Dirty:" or "Shared_Dirty:")
                Own += Bytes(words[1]);
        }

        private static long Bytes(string kilobytes) => long.Parse(kilobytes, CultureInfo.InvariantCulture) * 1024;
    }
}
