using System.Globalization;
using System.Xml.Linq;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Terms;
using Nailcrow.Procedures.Language;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Procedures.Drawing;

/// <summary>
/// A procedure as an SVG: its steps in one column as they are read, straight ways between them, and every other way as an
/// arc, forward ones on the right and backward ones on the left, with the answer it takes.
/// </summary>
public static class StepDrawing
{
    private const int RowHeight = 44;
    private const int BoxHeight = 30;
    private const int BoxLeft = 170;
    private const int BoxWidth = 430;
    private const int Width = 900;
    private const int Head = 70;

    private static readonly XNamespace Ns = "http://www.w3.org/2000/svg";

    public static string Svg(Procedure procedure)
    {
        var rows = Rows(procedure);
        var height = Head + rows.Count * RowHeight + RowHeight;
        var drawing = new XElement(
            Ns + "svg",
            new XAttribute("viewBox", $"0 0 {Width} {height}"),
            new XAttribute("width", Width),
            new XAttribute("height", height),
            new XAttribute("role", "img"),
            new XElement(Ns + "title", $"Steps of {procedure.Title}"),
            new XElement(Ns + "style", Style),
            new XElement(Ns + "rect", new XAttribute("class", "ground"), new XAttribute("width", Width), new XAttribute("height", height)),
            Text(BoxLeft, 34, "name", procedure.Title),
            Text(BoxLeft, 54, "small", $"{procedure.Id} {procedure.Version}, {procedure.Steps.Count} steps"),
            Ways(procedure, rows),
            rows.SelectMany(r => r.Step is { } step ? Box(step, r.Y) : [Text(BoxLeft, r.Y + 26, "chapter", r.Chapter)])
        );
        return drawing.ToString(SaveOptions.DisableFormatting);
    }

    private const string Style =
        ".ground{fill:#fbfaf7} text{font-family:sans-serif;font-size:13px;fill:#1d2530} "
        + ".name{font-size:18px;font-weight:bold} .small{font-size:12px;fill:#5a6472} "
        + ".chapter{font-weight:bold}"
        + " .box{fill:#fff;stroke:#1d2530} .gate{stroke-width:3} .call{stroke-dasharray:5 3} "
        + ".pull{fill:#f3e1c6} .loop{fill:none;stroke:#5a6472;stroke-dasharray:2 4}"
        + " .way{fill:none;stroke:#5a6472;stroke-width:1.2} .answer{font-size:11px;fill:#5a6472}";

    private sealed record Row(string Chapter, ProcedureStep? Step, int Y);

    private static List<Row> Rows(Procedure procedure)
    {
        var rows = new List<Row>();
        foreach (var step in procedure.Steps)
        {
            if (rows.Count == 0 || rows[^1].Chapter != step.Step.Chapter)
                rows.Add(new(step.Step.Chapter, null, Head + rows.Count * RowHeight));
            rows.Add(new(step.Step.Chapter, step, Head + rows.Count * RowHeight));
        }
        return rows;
    }

    private static IEnumerable<XElement> Box(ProcedureStep step, int y)
    {
        var css = $"box {Words.Of(step.Step.Kind)}{(step.Step.Records == Records.DrawnOut ? " pull" : "")}";
        yield return new XElement(
            Ns + "rect",
            new XAttribute("class", css),
            new XAttribute("x", BoxLeft),
            new XAttribute("y", y),
            new XAttribute("width", BoxWidth),
            new XAttribute("height", BoxHeight),
            new XAttribute("rx", step.Step.Kind is StepKind.Look or StepKind.Scan or StepKind.Read ? 15 : 3),
            new XElement(Ns + "title", step.When == Condition.Always ? step.Step.Say : $"{step.Step.Say} (only where {step.When})")
        );
        yield return Text(
            BoxLeft + 10,
            y + 20,
            "",
            $"{(step.When == Condition.Always ? "" : "◇ ")}{(step.Loop is null ? "" : "↻ ")}{Words.Of(step.Step.Kind)}  {step.Id}: {Short(step.Step.Say)}"
        );
    }

    private static IEnumerable<XElement> Ways(Procedure procedure, List<Row> rows)
    {
        var at = rows.Where(r => r.Step is not null).ToDictionary(r => r.Step!.Id, r => r.Y); // the filter kept those with a step
        for (var i = 0; i < procedure.Steps.Count; i++)
        {
            var (step, y) = (procedure.Steps[i], at[procedure.Steps[i].Id]);
            foreach (var group in AllAnswers.Of(step).GroupBy(a => a.Next))
            foreach (var way in Way(step, i, procedure, y, group.Key ?? Targets.End, string.Join(", ", group.Select(a => a.Answer)), at))
                yield return way;
        }
    }

    private static IEnumerable<XElement> Way(
        ProcedureStep step,
        int index,
        Procedure procedure,
        int y,
        string target,
        string answers,
        Dictionary<string, int> at
    )
    {
        var next = index + 1 < procedure.Steps.Count ? at[procedure.Steps[index + 1].Id] : y + RowHeight;
        if (target == Targets.GoOn || (at.TryGetValue(target, out var to) && to == next))
            return
            [
                Line(y + BoxHeight, next),
                .. answers == RunStep.Done
                    ? Array.Empty<XElement>()
                    : [Text(BoxLeft + BoxWidth / 2 + 8, y + BoxHeight + 11, "answer", answers)],
            ];
        // The way out that every step has would cover the drawing with arcs to one place; it is told in words.
        if (!at.TryGetValue(target, out to) || answers == RunStep.NotSo)
            return [Text(BoxLeft + BoxWidth + 8, y + (answers == RunStep.NotSo ? 27 : 12), "answer", $"{answers} → {target}")];
        return Arc(y, to, answers, target);
    }

    private static IEnumerable<XElement> Arc(int from, int to, string answers, string target)
    {
        var forward = to > from;
        var edge = forward ? BoxLeft + BoxWidth : BoxLeft;
        var reach = Math.Min(200, 40 + Math.Abs(to - from) / 6) * (forward ? 1 : -1);
        var path = string.Create(
            CultureInfo.InvariantCulture,
            $"M{edge} {from + 12} C{edge + reach} {from + 12} {edge + reach} {to + 20} {edge} {to + 20}"
        );
        yield return new XElement(Ns + "path", new XAttribute("class", "way"), new XAttribute("d", path));
        yield return Tip(edge, to + 20, forward ? -1 : 1);
        yield return new XElement(
            Ns + "text",
            new XAttribute("class", "answer"),
            new XAttribute("x", edge + (forward ? 8 : -8)),
            new XAttribute("y", from + 10),
            new XAttribute("text-anchor", forward ? "start" : "end"),
            $"{answers} → {target}"
        );
    }

    private static XElement Line(int from, int to) =>
        new(
            Ns + "path",
            new XAttribute("class", "way"),
            new XAttribute("d", $"M{BoxLeft + BoxWidth / 2} {from} V{to - 5} m-4 0 l4 5 l4 -5")
        );

    private static XElement Tip(int x, int y, int way) =>
        new(Ns + "path", new XAttribute("class", "way"), new XAttribute("d", $"M{x - way * 7} {y - 4} L{x} {y} L{x - way * 7} {y + 4}"));

    private static XElement Text(int x, int y, string css, string text) =>
        new(Ns + "text", new XAttribute("class", css), new XAttribute("x", x), new XAttribute("y", y), text);

    private static string Short(string say) => Shortened.To(say, 48, "…");
}
