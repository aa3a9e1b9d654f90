using System.Text.RegularExpressions;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;

namespace Nailcrow.Documents.Swaps;

/// <summary>The steps of a sheet as they are numbered on its paper.</summary>
internal sealed partial class Places
{
    private readonly Dictionary<string, int> _numbers;

    public Places(RunSheet sheet)
    {
        var all = PlainPath.OnPaper(sheet);
        _numbers = all.ToDictionary(p => p.Step, p => p.Number);
        Plain = [.. all.Where(p => p.IsPlain).Select(p => sheet.Step(p.Step)).OfType<RunStep>()];
        Otherwise = [.. all.Where(p => !p.IsPlain).Select(p => sheet.Step(p.Step)).OfType<RunStep>()];
        Stuck = sheet
            .Steps.Select(s => s.Leading(RunStep.NotSo)?.Next)
            .OfType<string>()
            .Where(_numbers.ContainsKey)
            .GroupBy(next => next)
            .MaxBy(g => g.Count())
            ?.Key;
    }

    public int this[string step] => _numbers[step];

    public IReadOnlyList<RunStep> Plain { get; }

    public IReadOnlyList<RunStep> Otherwise { get; }

    /// <summary>Where most steps lead that are not as the sheet says: told once, at the head.</summary>
    public string? Stuck { get; }

    /// <summary>A condition with the numbers of the steps whose answers it asks for.</summary>
    public string Said(string condition) =>
        Asked().Replace(condition, m => _numbers.TryGetValue(m.Groups[1].Value, out var number) ? $"step {number}" : m.Groups[1].Value);

    [GeneratedRegex(@"answer\.([a-z0-9.-]+)")]
    private static partial Regex Asked();
}
