using System.Security.Cryptography;
using System.Text;
using YamlDotNet.Core;
using YamlDotNet.RepresentationModel;

namespace Nailcrow.Core.Procedures;

/// <summary>Reads a procedure file: all that is wrong is reported at once, each with line and column.</summary>
public sealed class ProcedureReader
{
    // The longest procedure in use has 60 steps; a file of a megabyte is not instructions for a person.
    private const int MaxCharacters = 1_000_000;

    private readonly string _file;
    private readonly List<ProcedureProblem> _problems = [];

    private ProcedureReader(string file) => _file = file;

    public static (Procedure? Procedure, IReadOnlyList<ProcedureProblem> Problems) Read(string file, string text)
    {
        var reader = new ProcedureReader(file);
        var procedure = reader.Read(text);
        return (reader._problems.Count == 0 ? procedure : null, reader._problems);
    }

    private Procedure? Read(string text)
    {
        if (text.Length > MaxCharacters)
            return Nothing(1, 1, $"The file has {text.Length} characters; a procedure has at most {MaxCharacters}.");
        try
        {
            var yaml = new YamlStream();
            yaml.Load(new StringReader(text));
            return yaml.Documents is [{ RootNode: YamlMappingNode root }]
                ? OfRoot(root, text)
                : Nothing(1, 1, "A procedure file holds one mapping with the keys procedure, title, applies-to and chapters.");
        }
        catch (YamlException e)
        {
            return Nothing(e.Start.Line, e.Start.Column, $"This is not YAML: {e.Message}");
        }
    }

    private Procedure? OfRoot(YamlMappingNode root, string text)
    {
        var page = new StepReader.Page(root, this.Report);
        page.Allow("procedure", "title", "applies-to", "chapters");
        var id = page.Text("procedure");
        var title = page.Text("title");
        var appliesTo = page.Conditions("applies-to");
        var steps = Chapters(page).ToList();
        if (steps.Count == 0)
            return Nothing(root.Start.Line, root.Start.Column, "A procedure has at least one chapter with one step.");
        new ProcedureLinks(steps, Report).Check();
        return id is null || title is null
            ? Nothing(root.Start.Line, root.Start.Column, "A procedure needs 'procedure' (its name) and 'title'.")
            : new(id, title, VersionOf(text), _file, appliesTo, steps);
    }

    private IEnumerable<ProcedureStep> Chapters(StepReader.Page page)
    {
        foreach (var chapter in page.List("chapters"))
        {
            chapter.Allow("chapter", "steps");
            var name = chapter.Text("chapter") ?? "";
            foreach (var step in chapter.List("steps"))
                if (StepReader.Read(name, step) is { } read)
                    yield return read;
        }
    }

    public static string VersionOf(string text) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)))[..12];

    private Procedure? Nothing(long line, long column, string sentence)
    {
        Report(line, column, sentence);
        return null;
    }

    private void Report(long line, long column, string sentence) => _problems.Add(new(_file, line, column, sentence));
}
