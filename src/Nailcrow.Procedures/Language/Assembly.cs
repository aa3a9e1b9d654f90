using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Language;

/// <summary>What a variant puts into its skeleton.</summary>
internal sealed record Variant(
    IReadOnlyDictionary<string, IReadOnlyList<Page>> Fills,
    IReadOnlyList<(string After, IReadOnlyList<Page> Steps, Page At)> Adds
)
{
    public static readonly Variant Nothing = new(new Dictionary<string, IReadOnlyList<Page>>(), []);
}

/// <summary>A step in its place, with the conditions of everything it stands in, outermost first.</summary>
internal sealed record PlacedStep(WrittenStep Written, IReadOnlyList<WrittenText> Under, int? Loop, bool Demanded);

/// <summary>Puts chapters, fragments, places, loops and additions together into one list of steps.</summary>
internal sealed class Assembly(Shelf shelf, Variant variant, bool fromSkeleton, Action<Place, string> report)
{
    // A person follows a few dozen; the longest that anybody wrote for a growth of twenty drives has some hundred.
    private const int MostSteps = 2000;

    private readonly HashSet<string> _filled = [];
    private readonly HashSet<string> _used = [];
    private readonly Dictionary<string, Page?> _fragments = [];
    private int _loops;
    private int _steps;

    /// <summary>The texts of all fragments that were used: they belong to the version.</summary>
    public IEnumerable<string> UsedTexts => _used.Order(StringComparer.Ordinal).Select(f => shelf.Fragments[f].Text);

    public IReadOnlyList<PlacedStep> Of(Page root)
    {
        var steps = new List<PlacedStep>();
        foreach (var chapter in root.List("chapters"))
        {
            chapter.Allow("chapter", "steps", "when");
            if (chapter.Text("chapter") is not { } name)
            {
                chapter.Report("A chapter has a name: 'chapter: Find the machine'.");
                continue;
            }
            steps.AddRange(Items(chapter.List("steps"), new(name, Under([], chapter), null, fromSkeleton, [])));
        }
        foreach (var (place, content) in variant.Fills.Where(f => !_filled.Contains(f.Key)))
            (content.Count > 0 ? content[0] : root).Report(
                $"The skeleton has no place '{place}'.{Nearest.Hint(place, _filled)} Places: {string.Join(", ", _filled.DefaultIfEmpty("none"))}."
            );
        return Added(steps);
    }

    private IEnumerable<PlacedStep> Items(IReadOnlyList<Page> items, Where where) =>
        items.TakeWhile(_ => _steps <= MostSteps).SelectMany(item => Item(item, where));

    private IEnumerable<PlacedStep> Item(Page item, Where where) =>
        item.Has("use") ? Fragment(item, where)
        : item.Has("place") ? Place(item, where)
        : item.Has("each") ? Loop(item, where)
        : Step(item, where);

    private IEnumerable<PlacedStep> Step(Page item, Where where)
    {
        if (++_steps == MostSteps + 1)
            item.Report($"This is step {_steps}; a procedure has at most {MostSteps}.");
        if (_steps <= MostSteps && StepReader.Read(where.Chapter, item) is { } written)
            yield return new(written, written.When is { } own ? [.. where.Under, own] : where.Under, where.Loop, where.Demanded);
    }

    private IEnumerable<PlacedStep> Fragment(Page item, Where where)
    {
        item.Allow("use", "when");
        if (item.Text("use") is not { } name)
            return [];
        if (where.Inside.Contains(name))
        {
            item.Report($"Fragment '{name}' uses itself: {string.Join(" > ", where.Inside.Append(name))}.");
            return [];
        }
        if (Fragment(name, item) is not { } fragment)
            return [];
        return Items(fragment.List("steps"), where with { Under = Under(where.Under, item), Inside = [.. where.Inside, name] });
    }

    private Page? Fragment(string name, Page item)
    {
        if (_fragments.TryGetValue(name, out var known))
            return known;
        if (!shelf.Fragments.TryGetValue(name, out var piece))
        {
            item.ReportAt(
                "use",
                $"There is no fragment '{name}'.{Nearest.Hint(name, shelf.Fragments.Keys)} Fragments: "
                    + $"{string.Join(", ", shelf.Fragments.Keys.Order(StringComparer.Ordinal).DefaultIfEmpty("none"))}."
            );
            return _fragments[name] = null;
        }
        _used.Add(name);
        var root = GuardedYaml.Load(
            piece.Text,
            "fragment and steps",
            (line, column, sentence) => report(new(piece.File, line, column), sentence)
        );
        var page = root is null ? null : new Page(piece.File, root, report);
        page?.Allow("fragment", "steps");
        return _fragments[name] = page;
    }

    /// <summary>A place of the skeleton: what the variant fills it with, which nobody demands.</summary>
    private IEnumerable<PlacedStep> Place(Page item, Where where)
    {
        item.Allow("place", "must-fill", "when");
        if (item.Text("place") is not { } name)
            return [];
        if (!fromSkeleton || !where.Demanded)
        {
            item.Report($"Only a skeleton has places; write the steps of '{name}' here.");
            return [];
        }
        _filled.Add(name);
        if (variant.Fills.TryGetValue(name, out var content))
            return Items(content, where with { Demanded = false, Under = Under(where.Under, item) });
        if (item.Yes("must-fill"))
            item.Report($"The skeleton's place '{name}' has to be filled; say 'fills: {{ {name}: [steps] }}' in the procedure.");
        return [];
    }

    private IEnumerable<PlacedStep> Loop(Page item, Where where)
    {
        item.Allow("each", "steps", "when");
        if (item.Text("each") is not "drive")
            item.ReportAt("each", "A loop goes over each 'drive' of the ticket.");
        if (where.Loop is not null)
        {
            item.Report("A loop over drives cannot stand inside another one.");
            return [];
        }
        return Items(item.List("steps"), where with { Loop = _loops++, Under = Under(where.Under, item) });
    }

    private List<PlacedStep> Added(List<PlacedStep> steps)
    {
        foreach (var (after, content, at) in variant.Adds)
        {
            var index = steps.FindIndex(s => s.Written.Step.Id == after);
            if (index < 0)
            {
                at.ReportAt(
                    "after",
                    $"There is no step '{after}' to add after.{Nearest.Hint(after, steps.Select(s => s.Written.Step.Id))}"
                );
                continue;
            }
            var neighbour = steps[index];
            steps.InsertRange(
                index + 1,
                Items(
                    content,
                    new(
                        neighbour.Written.Step.Chapter,
                        neighbour.Written.When is null ? neighbour.Under : [.. neighbour.Under.SkipLast(1)],
                        neighbour.Loop,
                        false,
                        []
                    )
                )
            );
        }
        return steps;
    }

    private static IReadOnlyList<WrittenText> Under(IReadOnlyList<WrittenText> outer, Page page) =>
        page.Written("when") is { } own ? [.. outer, own] : outer;

    private sealed record Where(string Chapter, IReadOnlyList<WrittenText> Under, int? Loop, bool Demanded, IReadOnlyList<string> Inside);
}
