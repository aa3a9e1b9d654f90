using Spectre.Console;
using Spectre.Console.Rendering;

namespace Nailcrow.Cli.Shell.Telling;

/// <summary>
/// A table with a head and no lines. Where it is wider than the terminal, what is longest stands beneath its row under its own
/// name: an id or a word is never broken in two.
/// </summary>
/// <param name="cells">Markup; what comes from data went through <see cref="Screen.Safe"/>.</param>
internal sealed class Rows(IReadOnlyList<string> head, IReadOnlyList<string[]> cells)
{
    private const int Between = 2;
    private const int Indent = 4;

    public IEnumerable<IRenderable> Within(int width)
    {
        var widths = Enumerable.Range(0, head.Count).Select(c => cells.Select(row => Length(row[c])).Append(head[c].Length).Max()).ToList();
        var beneath = Beneath(widths, width);
        yield return Line(c => $"[dim]{Markup.Escape(head[c])}[/]", widths, beneath);
        foreach (var row in cells)
        {
            yield return Line(c => row[c], widths, beneath);
            foreach (var c in beneath.Order().Where(c => Length(row[c]) > 0))
                yield return new Padder(new Markup($"[dim]{Markup.Escape(head[c])}[/] {row[c]}"), new Padding(Indent, 0, 0, 0));
        }
    }

    /// <summary>The widest columns, until the others fit side by side. The first one names the row, and stays.</summary>
    private static HashSet<int> Beneath(List<int> widths, int width)
    {
        var beneath = new HashSet<int>();
        while (widths.Where((_, c) => !beneath.Contains(c)).Sum(w => w + Between) - Between > width && beneath.Count < widths.Count - 1)
            beneath.Add(Enumerable.Range(1, widths.Count - 1).Where(c => !beneath.Contains(c)).MaxBy(c => widths[c]));
        return beneath;
    }

    private static Markup Line(Func<int, string> cell, List<int> widths, HashSet<int> beneath)
    {
        var shown = Enumerable.Range(0, widths.Count).Where(c => !beneath.Contains(c)).ToList();
        return new(
            string.Concat(shown.Select(c => cell(c) + (c == shown[^1] ? "" : new string(' ', widths[c] - Length(cell(c)) + Between))))
                + "\n"
        );
    }

    private static int Length(string markup) => Markup.Remove(markup).GetCellWidth();
}
