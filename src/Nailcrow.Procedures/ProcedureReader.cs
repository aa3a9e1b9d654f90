using System.Security.Cryptography;
using System.Text;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Terms;
using Nailcrow.Procedures.Language;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Procedures;

/// <summary>Reads a procedure file with all it is built from: everything wrong is reported at once, with file, line and column.</summary>
public sealed class ProcedureReader
{
    private static readonly string[] Keys =
    [
        "procedure",
        "title",
        "comes-back",
        "applies-to",
        "by-name",
        "not-so",
        "skeleton",
        "fills",
        "adds",
        "chapters",
    ];

    private readonly string _file;
    private readonly Shelf _shelf;
    private readonly List<ProcedureProblem> _problems = [];

    private ProcedureReader(string file, Shelf shelf) => (_file, _shelf) = (file, shelf);

    public static (Procedure? Procedure, IReadOnlyList<ProcedureProblem> Problems) Read(string file, string text, Shelf shelf)
    {
        var reader = new ProcedureReader(file, shelf);
        var procedure = reader.Read(text);
        return (reader._problems.Count == 0 ? procedure : null, reader._problems);
    }

    private Procedure? Read(string text)
    {
        if (
            GuardedYaml.Load(text, string.Join(", ", Keys), (line, column, sentence) => Report(new(_file, line, column), sentence))
            is not { } root
        )
            return null;
        var page = new Page(_file, root, Report);
        page.Allow(Keys);
        var (id, title) = (page.Text("procedure"), page.Text("title"));
        if (id is null || title is null)
            page.Report("A procedure needs 'procedure' (its name) and 'title'.");
        if (page.Word<ComesBack>("comes-back") is not { } comesBack)
        {
            if (!page.Has("comes-back"))
                page.Report($"Say how redundancy comes back: 'comes-back:' with one of {Words.List<ComesBack>()}.");
            return null;
        }
        var appliesTo = page.Written("applies-to");
        if (appliesTo is null)
            page.Report(
                "Say which machines and tickets it is for: 'applies-to: model.loading is front and ticket.job is fault'; 'always' where it is for all."
            );
        return Assembled(page, text) is not var (steps, facts, used) || id is null || title is null || appliesTo is null
            ? null
            : new(id, title, VersionOf(used), _file, comesBack, page.Yes("by-name"), Parse(appliesTo, WithoutAnswers), facts, steps);
    }

    private (IReadOnlyList<ProcedureStep> Steps, IReadOnlyDictionary<string, FactType> Facts, IEnumerable<string> Used)? Assembled(
        Page page,
        string text
    )
    {
        if (Skeleton(page) is not var (chapters, skeletonText))
            return null;
        var fromSkeleton = page.Has("skeleton");
        var assembly = new Assembly(_shelf, fromSkeleton ? VariantOf(page) : Variant.Nothing, fromSkeleton, Report);
        var placed = assembly.Of(chapters);
        if (placed.Count == 0)
        {
            page.Report("A procedure has at least one chapter with one step.");
            return null;
        }
        var facts = FactsOf(placed);
        var notSo = page.Text("not-so") ?? (fromSkeleton ? chapters.Text("not-so") : null);
        var steps = placed.Select(p => Finished(p, facts, notSo)).ToList();
        new ProcedureLinks(steps, fromSkeleton, Report).Check();
        return (steps, facts, [text, .. skeletonText is null ? [] : new[] { skeletonText }, .. assembly.UsedTexts]);
    }

    /// <summary>The page the chapters stand on: the procedure's own, or its skeleton's.</summary>
    private (Page Chapters, string? Text)? Skeleton(Page page)
    {
        if (page.Text("skeleton") is not { } name)
            return (page, null);
        if (page.Has("chapters"))
            page.ReportAt("chapters", "A procedure with a skeleton fills its places and adds to it; it has no chapters of its own.");
        if (!_shelf.Skeletons.TryGetValue(name, out var piece))
        {
            page.ReportAt(
                "skeleton",
                $"There is no skeleton '{name}'.{Nearest.Hint(name, _shelf.Skeletons.Keys)} Skeletons: "
                    + $"{string.Join(", ", _shelf.Skeletons.Keys.Order(StringComparer.Ordinal).DefaultIfEmpty("none"))}."
            );
            return null;
        }
        var root = GuardedYaml.Load(
            piece.Text,
            "skeleton, not-so and chapters",
            (line, column, sentence) => Report(new(piece.File, line, column), sentence)
        );
        if (root is null)
            return null;
        var skeleton = new Page(piece.File, root, Report);
        skeleton.Allow("skeleton", "not-so", "chapters");
        return (skeleton, piece.Text);
    }

    private static Variant VariantOf(Page page) =>
        new(
            page.Lists("fills"),
            page.Has("adds") ? [.. page.List("adds").Select(Addition).OfType<(string, IReadOnlyList<Page>, Page)>()] : []
        );

    private static (string, IReadOnlyList<Page>, Page)? Addition(Page add)
    {
        add.Allow("after", "steps");
        if (add.Text("after") is { } after)
            return (after, add.List("steps"), add);
        add.Report("An addition says after which step it comes: 'after: pull'.");
        return null;
    }

    private ProcedureStep Finished(PlacedStep placed, IReadOnlyDictionary<string, FactType> facts, string? notSo)
    {
        var written = placed.Written;
        var when = placed.Under.Aggregate(Condition.Always, (whole, part) => Condition.And(whole, Parse(part, facts)));
        return new(
            written.Step,
            when,
            written.SecondsFrom,
            written.Then,
            written.NotSo ?? (WaysOut.MayHave(written.Step) && notSo != written.Step.Id ? notSo : null),
            placed.Loop,
            placed.Demanded,
            written.At,
            written.MovesNothing,
            written.Means
        );
    }

    private Condition Parse(WrittenText written, IReadOnlyDictionary<string, FactType> facts)
    {
        var (condition, problem, at) = ConditionParser.Parse(written.Text, facts);
        if (problem is not null)
            Report(written.At with { Column = written.At.Column + at }, problem);
        return condition ?? Condition.Always;
    }

    private static readonly Dictionary<string, FactType> WithoutAnswers = ModelProperties.Facts.Concat(TicketFacts.Facts).ToDictionary();

    private static Dictionary<string, FactType> FactsOf(IReadOnlyList<PlacedStep> steps)
    {
        var facts = new Dictionary<string, FactType>(WithoutAnswers);
        foreach (var step in steps)
            facts[AnswerFacts.Prefix + step.Written.Step.Id] = AnswerFacts.Of(step.Written.Step);
        return facts;
    }

    /// <summary>SHA-256 over the texts of the file and all it is built from, first 12 hex digits.</summary>
    private static string VersionOf(IEnumerable<string> texts) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\0', texts))))[..12];

    private void Report(Place at, string sentence) => _problems.Add(new(at.File, at.Line, at.Column, sentence));
}
