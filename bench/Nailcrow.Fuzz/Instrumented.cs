using SharpFuzz;

namespace Nailcrow.Fuzz;

internal static class Instrumented
{
    /// <summary>Our own assemblies in a folder, and nobody else's: what is to be found is in ours.</summary>
    public static int In(string folder)
    {
        foreach (
            var file in Directory.EnumerateFiles(folder, "*ailcrow*.dll").Where(f => Path.GetFileName(f) != "Nailcrow.Fuzz.dll").Order()
        )
        {
            var types = Fuzzer.Instrument(
                file,
                type => !type.StartsWith("Nailcrow.Store.Migrations", StringComparison.Ordinal),
                Options.Value
            );
            Console.WriteLine($"{Path.GetFileName(file)}: {types.Count()} types");
        }
        return 0;
    }
}
