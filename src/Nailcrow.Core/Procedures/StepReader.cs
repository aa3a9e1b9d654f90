using System.Globalization;
using YamlDotNet.RepresentationModel;

namespace Nailcrow.Core.Procedures;

/// <summary>Reads one step. The key that holds the sentence is the step's kind.</summary>
internal static class StepReader
{
    private static readonly string[] Kinds = [.. Enum.GetValues<StepKind>().Select(Words.Of)];

    private static readonly string[] Others =
    [
        "id", "see", "hear", "if-not", "normal-now", "records", "mark", "against", "needs", "seconds", "until", "points-at",
        "answers", "then", "when",
    ];

    public static ProcedureStep? Read(string chapter, Page page)
    {
        page.Allow([.. Kinds, .. Others]);
        var id = page.Text("id");
        var kinds = Kinds.Where(page.Has).ToList();
        if (id is null || kinds.Count != 1)
        {
            page.Report($"A step has an 'id' and exactly one of {string.Join(", ", Kinds)}; this one has {(kinds.Count == 0 ? "none" : string.Join(" and ", kinds))}.");
            return null;
        }
        var kind = Enum.Parse<StepKind>(kinds[0], ignoreCase: true);
        var length = page.Text("seconds");
        int? seconds = int.TryParse(length, NumberStyles.None, CultureInfo.InvariantCulture, out var given) ? given : null;
        if (length is not null && seconds is null && !ModelProperties.Lengths.Contains(length))
            page.ReportAt("seconds", $"'{length}' is not a length; give whole seconds or one of {string.Join(", ", ModelProperties.Lengths)}.");
        var step = new RunStep(
            id,
            kind,
            chapter,
            page.Text(kinds[0]) ?? "",
            page.Answers(),
            page.Text("see"),
            page.Text("hear"),
            page.Text("if-not"),
            page.Texts("normal-now"),
            page.Word<Records>("records"),
            page.Text("mark"),
            page.Word<ScanTarget>("against"),
            page.Word<GateFact>("needs"),
            seconds,
            page.Text("until"),
            page.Word<PointsAt>("points-at") ?? PointsAt.Nothing
        );
        Demands(page, step, length);
        return new(step, page.Conditions("when"), seconds is null ? length : null, page.Text("then"), page.Line, page.Column);
    }

    private static void Demands(Page page, RunStep step, string? length)
    {
        if (step.Kind == StepKind.Gate && step.Gate is null)
            page.Report($"Gate '{step.Id}' says nothing it needs; add 'needs:' with one of {Words.List<GateFact>()}.");
        if (step.Kind is StepKind.Hold or StepKind.Limit && length is null)
            page.Report($"'{step.Id}' has no 'seconds:'.");
        if (step.Kind == StepKind.Limit && step.Until is null)
            page.Report($"Limit '{step.Id}' has no 'until:' with the step that ends it.");
        if (step.Kind == StepKind.Scan && step.Against is null)
            page.Report($"Scan '{step.Id}' is compared to nothing; add 'against:' with one of {Words.List<ScanTarget>()}.");
        if (step.Kind == StepKind.Scan && step.Leading("different") is null)
            page.Report($"Scan '{step.Id}' has no answer for 'different'; say where a wrong serial leads.");
        if (step.Kind == StepKind.Look && step.Answers.Count < 2)
            page.Report($"Look '{step.Id}' asks a question; give at least two answers.");
        if (step.Records is Records.BayMark or Records.ChassisMark && step.Mark is null)
            page.Report($"'{step.Id}' records a mark; name it with 'mark:' so that two marks can be told apart.");
    }

    /// <summary>One mapping of the file, read key by key; whatever is wrong is reported where it stands.</summary>
    internal sealed class Page(YamlMappingNode node, Action<long, long, string> report)
    {
        public long Line => node.Start.Line;
        public long Column => node.Start.Column;

        public void Report(string sentence) => report(Line, Column, sentence);

        public void ReportAt(string key, string sentence)
        {
            var at = node.Children.Keys.OfType<YamlScalarNode>().FirstOrDefault(k => k.Value == key)?.Start ?? node.Start;
            report(at.Line, at.Column, sentence);
        }

        public bool Has(string key) => node.Children.ContainsKey(new YamlScalarNode(key));

        public void Allow(params string[] keys)
        {
            foreach (var key in node.Children.Keys)
                if (key is not YamlScalarNode { Value: { } name } || !keys.Contains(name))
                    report(key.Start.Line, key.Start.Column, $"'{key}' is not known here.{Nearest.Hint($"{key}", keys)} Accepted: {string.Join(", ", keys)}.");
        }

        public string? Text(string key)
        {
            if (!node.Children.TryGetValue(new YamlScalarNode(key), out var value))
                return null;
            if (value is YamlScalarNode { Value.Length: > 0 } scalar)
                return scalar.Value;
            report(value.Start.Line, value.Start.Column, $"'{key}' is to be a text and not empty.");
            return null;
        }

        public IReadOnlyList<string>? Texts(string key)
        {
            if (!Has(key))
                return null;
            if (node.Children[new YamlScalarNode(key)] is YamlSequenceNode list && list.All(i => i is YamlScalarNode { Value: not null }))
                return [.. list.Select(i => ((YamlScalarNode)i).Value!)]; // the line above checked it
            ReportAt(key, $"'{key}' is to be a list of texts.");
            return null;
        }

        public IEnumerable<Page> List(string key)
        {
            if (Has(key) && node.Children[new YamlScalarNode(key)] is YamlSequenceNode list && list.All(i => i is YamlMappingNode))
                return list.Select(i => new Page((YamlMappingNode)i, report));
            ReportAt(key, $"'{key}' is to be a list of mappings.");
            return [];
        }

        public T? Word<T>(string key)
            where T : struct, Enum
        {
            if (Text(key) is not { } text)
                return null;
            switch (Words.Parse<T>(text, key))
            {
                case Parsed<T>.Ok(var value):
                    return value;
                case Parsed<T>.Refused(var reason):
                    ReportAt(key, reason + Nearest.Hint(text, Enum.GetValues<T>().Select(Words.Of)));
                    break;
            }
            return null;
        }

        public IReadOnlyDictionary<string, IReadOnlyList<string>> Conditions(string key)
        {
            var conditions = new Dictionary<string, IReadOnlyList<string>>();
            if (!Has(key))
                return conditions;
            if (node.Children[new YamlScalarNode(key)] is not YamlMappingNode map)
            {
                ReportAt(key, $"'{key}' is to be a mapping of model properties to values.");
                return conditions;
            }
            foreach (var (property, value) in map.Children)
                if (Condition(property, value) is { } condition)
                    conditions[condition.Property] = condition.Values;
            return conditions;
        }

        public IReadOnlyList<StepAnswer> Answers()
        {
            if (!Has("answers"))
                return [];
            if (node.Children[new YamlScalarNode("answers")] is not YamlMappingNode map)
            {
                ReportAt("answers", "'answers' is to be a mapping: answer to the step it leads to, or to 'go on' or 'end'.");
                return [];
            }
            if (map.Children.Keys.Any(k => k is not YamlScalarNode { Value.Length: > 0 }))
            {
                ReportAt("answers", "An answer is to be a text and not empty.");
                return [];
            }
            return [.. map.Children.Select(a => new StepAnswer($"{a.Key}", Label($"{a.Key}"), $"{a.Value}"))];
        }

        private static string Label(string answer) => char.ToUpperInvariant(answer[0]) + answer[1..].Replace('-', ' ');

        private (string Property, IReadOnlyList<string> Values)? Condition(YamlNode property, YamlNode value)
        {
            if (!ModelProperties.Values.TryGetValue($"{property}", out var accepted))
            {
                report(property.Start.Line, property.Start.Column, $"'{property}' is not a model property.{Nearest.Hint($"{property}", ModelProperties.Values.Keys)} Accepted: {string.Join(", ", ModelProperties.Values.Keys)}.");
                return null;
            }
            var values = value is YamlSequenceNode list ? list.Select(v => $"{v}").ToList() : [$"{value}"];
            foreach (var unknown in values.Except(accepted))
                report(value.Start.Line, value.Start.Column, $"'{property}' is never '{unknown}'; accepted: {string.Join(", ", accepted)}.");
            return ($"{property}", values);
        }
    }
}
