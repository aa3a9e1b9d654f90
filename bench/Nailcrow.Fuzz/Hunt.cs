using System.Diagnostics;
using System.Text;

namespace Nailcrow.Fuzz;

/// <summary>Gives a target one input after the other. What reached something new is kept and changed further.</summary>
internal sealed class Hunt(Target target, int seed)
{
    // Beyond what any input of its length has to cost: a parser that takes more can be made to take all.
    private const long MostBytes = 64L * 1024 * 1024;
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(2);

    private const int MostKept = 20_000;

    // Of each kind of fault, told by its type and where it was thrown.
    private const int MostFound = 20;

    private readonly Random _chance = new(seed);
    private readonly List<byte[]> _kept = [.. target.Seeds];
    private readonly HashSet<string> _found = [];

    /// <returns>How many faults were found, each counted once.</returns>
    public int Run(long inputs)
    {
        var reached = new Reached();
        var mutating = new Mutating(_chance, target.Words);
        var (began, told) = (Stopwatch.GetTimestamp(), Stopwatch.GetTimestamp());
        var (slowest, largest) = (TimeSpan.Zero, 0L);
        for (var nth = 0L; nth < inputs && _found.Count < MostFound; nth++)
        {
            var input = nth < target.Seeds.Count ? target.Seeds[(int)nth] : mutating.Made(Any(), Any());
            reached.Begin();
            var (before, at) = (GC.GetAllocatedBytesForCurrentThread(), Stopwatch.GetTimestamp());
            Try(input);
            var (took, bytes) = (Stopwatch.GetElapsedTime(at), GC.GetAllocatedBytesForCurrentThread() - before);
            if (took > slowest && nth > target.Seeds.Count) // the first ones are compiled meanwhile
                slowest = took;
            largest = Math.Max(largest, bytes);
            if (took > Longest)
                Found($"took {took.TotalSeconds:0.0} s", input);
            if (bytes > MostBytes)
                Found($"allocated {bytes / 1024 / 1024} MB", input);
            if (reached.IsNew() && _kept.Count < MostKept)
                _kept.Add(input);
            if (Stopwatch.GetElapsedTime(told) > TimeSpan.FromSeconds(30))
            {
                told = Stopwatch.GetTimestamp();
                Console.WriteLine($"  {target.Name}: {nth:N0} inputs, {reached.Ever:N0} places, {_kept.Count:N0} kept");
            }
        }
        Console.WriteLine(
            $"{target.Name}: {inputs:N0} inputs in {Stopwatch.GetElapsedTime(began).TotalSeconds:0} s, {reached.Ever:N0} places reached, "
                + $"{_kept.Count:N0} kept; slowest {slowest.TotalMilliseconds:0.0} ms, most memory {largest / 1024:N0} KB, found {_found.Count}"
        );
        return _found.Count;
    }

    /// <summary>What came last reached something new: it is changed more often than what lies long.</summary>
    private byte[] Any() =>
        _kept.Count == 0 ? []
        : _chance.Next(3) == 0 ? _kept[_kept.Count - 1 - _chance.Next(Math.Min(_kept.Count, 64))]
        : _kept[_chance.Next(_kept.Count)];

    private void Try(byte[] input)
    {
        try
        {
            target.Take(input);
        }
        catch (Exception e)
        {
            var where = new StackTrace(e)
                .GetFrames()
                .FirstOrDefault(f => f.GetMethod()?.DeclaringType?.FullName?.StartsWith("Nailcrow", StringComparison.Ordinal) == true);
            Found($"{e.GetType().Name} in {where?.GetMethod()?.DeclaringType?.Name}.{where?.GetMethod()?.Name}", input, e.ToString());
        }
    }

    private void Found(string what, byte[] input, string? more = null)
    {
        if (!_found.Add(what))
            return;
        var folder = Directory.CreateDirectory(Path.Combine(".build", "fuzz", "found")).FullName;
        var file = Path.Combine(folder, $"{target.Name}-{_found.Count}");
        File.WriteAllBytes($"{file}.input", input);
        File.WriteAllText($"{file}.txt", $"{what}\n{more}\n{Convert.ToBase64String(input)}\n", Encoding.UTF8);
        Console.WriteLine($"  FOUND {target.Name}: {what}; {file}.txt");
    }
}
