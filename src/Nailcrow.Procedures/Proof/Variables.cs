using System.Globalization;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Conditions;

namespace Nailcrow.Procedures.Proof;

/// <summary>The facts that a procedure's paths depend on, each with the values that make a difference.</summary>
internal sealed class Variables
{
    // A character's worth in the key of a state, less the one that stands for "not known yet".
    private const int MostValues = 1000;

    private readonly List<string> _names;
    private readonly Dictionary<string, int> _index;
    private readonly List<IReadOnlyList<string>> _values;
    private readonly List<IReadOnlyList<string>> _told;
    private readonly List<Dictionary<string, int>> _classes;
    private readonly Procedure _procedure;

    /// <param name="asking">The steps that ask; what the procedure is written for asks as well.</param>
    public Variables(Procedure procedure, IReadOnlyList<ProcedureStep> asking)
    {
        _procedure = procedure;
        var conditions = asking.Select(s => s.When).Append(procedure.AppliesTo).ToList();
        _names = [.. conditions.SelectMany(c => c.Facts()).Concat(asking.SelectMany(s => Implied(s, procedure.ComesBack))).Distinct()];
        _index = _names.Select((n, i) => (n, i)).ToDictionary(v => v.n, v => v.i);
        var alike = _names.Select(n => Alike(ValuesOf(n, conditions), n, conditions)).ToList();
        _values = [.. alike.Select(groups => (IReadOnlyList<string>)[.. groups.Select(g => g[0])])];
        _told = [.. alike.Select(groups => (IReadOnlyList<string>)[.. groups.Select(g => string.Join(" or ", g))])];
        _classes =
        [
            .. alike.Select(groups =>
                groups.SelectMany((g, place) => g.Select(value => (value, place))).ToDictionary(v => v.value, v => v.place)
            ),
        ];
    }

    public int Count => _names.Count;

    public int IndexOf(string fact) => _index.GetValueOrDefault(fact, -1);

    public string Name(int variable) => _names[variable];

    /// <summary>One value for each way in which it makes a difference.</summary>
    public IReadOnlyList<string> Values(int variable) => _values[variable];

    /// <summary>All values that the one at this place stands for.</summary>
    public string Told(int variable, int place) => _told[variable][place];

    public bool IsAnswer(int variable) => _names[variable].StartsWith(AnswerFacts.Prefix, StringComparison.Ordinal);

    /// <summary>The place in <see cref="Values"/> of the one that stands for a value.</summary>
    public int PlaceOf(int variable, string value) =>
        _classes[variable].TryGetValue(value, out var place) ? place : _classes[variable][AnswerFacts.Unanswered]; // what is no value says as little as none

    /// <summary>What a state knows: the value that stands for a fact, null where it is open.</summary>
    public Func<string, string?> In(string values) =>
        fact => IndexOf(fact) is var v and >= 0 && values[v] is not '\0' and var place ? _values[v][place - 1] : null;

    /// <summary>The same state with one variable known.</summary>
    public static string With(string values, int variable, int place) =>
        string.Create(
            values.Length,
            (values, variable, place),
            static (span, s) =>
            {
                s.values.CopyTo(span);
                span[s.variable] = (char)(s.place + 1);
            }
        );

    /// <summary>
    /// Values that no condition tells apart are one; a gate and a pull ask for who starts the rebuild and for power, and tell all
    /// apart.
    /// </summary>
    private static List<List<string>> Alike(IReadOnlyList<string> values, string name, IReadOnlyList<Condition> conditions)
    {
        if (name is ModelProperties.RebuildStarts or ModelProperties.Swapped or ModelProperties.Loads)
            return [.. values.Select(v => new List<string> { v })];
        var parts = conditions.SelectMany(Parts).Where(p => p.Facts().First() == name).Distinct().ToList();
        return
        [
            .. values
                .GroupBy(v => (IsOpenNumber(v, values), string.Concat(parts.Select(p => p.Holds(_ => v) == true ? '+' : '-'))))
                .Select(g => g.ToList()),
        ];
    }

    /// <summary>
    /// That no number was read yet: it stands to a condition as many numbers do, but it is none that could be read, and would take
    /// their whole class out of the walk.
    /// </summary>
    private static bool IsOpenNumber(string value, IReadOnlyList<string> values) =>
        value == AnswerFacts.Unanswered && values.All(v => v == value || decimal.TryParse(v, CultureInfo.InvariantCulture, out _));

    private static IEnumerable<Condition> Parts(Condition condition) =>
        condition switch
        {
            Condition.Both b => Parts(b.Left).Concat(Parts(b.Right)),
            Condition.Either e => Parts(e.Left).Concat(Parts(e.Right)),
            Condition.Opposite o => Parts(o.Of),
            Condition.Constant => [],
            _ => [condition],
        };

    /// <summary>
    /// Asked without being named: by a gate that depends on who starts the rebuild, and by a pull that may need the power off and
    /// something open.
    /// </summary>
    public static IEnumerable<string> Implied(ProcedureStep step, ComesBack pattern)
    {
        if (step.Step.Gate == GateFact.RebuildSeen && pattern == ComesBack.ByRebuild)
            yield return ModelProperties.RebuildStarts;
        if (step.Step.Records == Records.DrawnOut)
        {
            yield return ModelProperties.Swapped;
            yield return ModelProperties.Loads;
        }
    }

    private IReadOnlyList<string> ValuesOf(string name, IReadOnlyList<Condition> conditions) =>
        _procedure.Facts.GetValueOrDefault(name) switch
        {
            FactType.OneOf words => words.Words,
            FactType.Number =>
            [
                .. (name.StartsWith(AnswerFacts.Prefix, StringComparison.Ordinal) ? new[] { AnswerFacts.Unanswered } : []),
                .. Numbers(name, conditions),
            ],
            _ => throw new InvalidOperationException($"'{name}' is asked and is neither a word nor a number."),
        };

    /// <summary>
    /// Every number it is compared with, one below the lowest, one above the highest and one between each two, and the bounds of what
    /// can be read: others stand to all of them as one of these does.
    /// </summary>
    private IEnumerable<string> Numbers(string name, IReadOnlyList<Condition> conditions)
    {
        var compared = conditions
            .SelectMany(Parts)
            .OfType<Condition.Stands>()
            .Where(s => s.Fact == name)
            .Select(s => s.Number)
            .Distinct()
            .Order()
            .Take(MostValues / 2)
            .ToList();
        var (lowest, highest) = Range(name);
        var all = new SortedSet<decimal>(compared) { compared[0] - 1, compared[^1] + 1 };
        for (var i = 1; i < compared.Count; i++)
            all.Add((compared[i - 1] + compared[i]) / 2);
        if (lowest > decimal.MinValue)
            all.Add(lowest);
        if (highest is { } most)
            all.Add(most);
        return all.Where(n => n >= lowest && !(n > highest)).Select(n => n.ToString(CultureInfo.InvariantCulture));
    }

    /// <summary>Counts, times and sizes are never below zero; a reading keeps to the range its step gives.</summary>
    private (decimal Lowest, decimal? Highest) Range(string name)
    {
        var step = name.StartsWith(AnswerFacts.Prefix, StringComparison.Ordinal)
            ? _procedure.Steps[_procedure.IndexOf(name[AnswerFacts.Prefix.Length..])].Step
            : null;
        var dimension = ((FactType.Number)_procedure.Facts[name]).Dimension; // ValuesOf has seen that it is one
        var inBase = step?.Unit is { } unit && Quantity.Parse("1", dimension, unit).Is(out var one, out _) ? one : 1;
        var lowest = step?.AtLeast * inBase ?? (dimension == Dimension.Temperature ? decimal.MinValue : 0);
        return (lowest, step?.AtMost * inBase);
    }
}
