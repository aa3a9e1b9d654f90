using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;

namespace Nailcrow.Fuzz;

/// <summary>
/// Which branches an input ran, and how often, as the instrumented assemblies count it: pairs of places, in 65,536 counters that are told
/// apart by their order of magnitude (1, 2, 3, 4 to 7, 8 to 15, 16 to 31, 32 to 127, more).
/// </summary>
internal sealed unsafe class Reached
{
    private const int Places = 1 << 16;

    private static readonly byte* Counts = (byte*)NativeMemory.AllocZeroed(Places);

    private readonly byte[] _ever = new byte[Places];

    /// <summary>Before anything that counts runs.</summary>
    [ModuleInitializer]
    internal static void Prepare() => SharpFuzz.Common.Trace.SharedMem = Counts;

    /// <summary>How many places were ever reached.</summary>
    public int Ever { get; private set; }

    public void Begin()
    {
        NativeMemory.Clear(Counts, Places);
        SharpFuzz.Common.Trace.PrevLocation = 0;
    }

    /// <summary>Whether it reached something, or as often, as no input did before.</summary>
    public bool IsNew()
    {
        var isNew = false;
        var words = new ReadOnlySpan<ulong>(Counts, Places / sizeof(ulong));
        for (var word = 0; word < words.Length; word++)
        {
            if (words[word] == 0)
                continue;
            for (var at = word * sizeof(ulong); at < (word + 1) * sizeof(ulong); at++)
            {
                var magnitude = Magnitude(Counts[at]);
                if ((_ever[at] & magnitude) == magnitude)
                    continue;
                if (_ever[at] == 0)
                    Ever++;
                _ever[at] |= magnitude;
                isNew = true;
            }
        }
        return isNew;
    }

    private static byte Magnitude(byte count) =>
        count switch
        {
            0 => 0,
            1 => 1,
            2 => 2,
            3 => 4,
            < 8 => 8,
            < 16 => 16,
            < 32 => 32,
            < 128 => 64,
            _ => 128,
        };
}
