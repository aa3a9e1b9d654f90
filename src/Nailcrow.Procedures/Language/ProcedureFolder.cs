using Nailcrow.Core.Procedures.Checked;

namespace Nailcrow.Procedures.Language;

/// <summary>A folder of procedure files with its skeletons and fragments, read from disk; the service and the command read it alike.</summary>
public static class ProcedureFolder
{
    public static Shelf ShelfOf(string folder) =>
        Shelf.Of(new[] { Shelf.SkeletonFolder, Shelf.FragmentFolder }.SelectMany(kind => Pieces(folder, kind)));

    /// <summary>The texts of all skeletons and fragments, by file name.</summary>
    public static IReadOnlyDictionary<string, string> SharedTexts(string folder) =>
        new[] { Shelf.SkeletonFolder, Shelf.FragmentFolder }
            .SelectMany(kind => Pieces(folder, kind))
            .ToDictionary(p => p.File, p => p.Text);

    /// <summary>Each procedure's file with the texts it is read from, its own and the whole shelf's, by file name.</summary>
    public static IReadOnlyList<(string File, IReadOnlyDictionary<string, string> Files)> Texts(string folder)
    {
        var shared = SharedTexts(folder);
        return
        [
            .. Paths(folder)
                .Select(path =>
                    (
                        Path.GetFileName(path),
                        (IReadOnlyDictionary<string, string>)
                            new Dictionary<string, string>(shared) { [Path.GetFileName(path)] = File.ReadAllText(path) }
                    )
                ),
        ];
    }

    /// <summary>The procedures of the folder in order of name, each with what is wrong in it.</summary>
    public static IReadOnlyList<(string File, string Text, Procedure? Procedure, IReadOnlyList<ProcedureProblem> Problems)> Read(
        string folder
    )
    {
        var shelf = ShelfOf(folder);
        return [.. Paths(folder).Select(path => One(path, shelf))];
    }

    private static IEnumerable<string> Paths(string folder) => Directory.EnumerateFiles(folder, "*.yaml").Order(StringComparer.Ordinal);

    private static (string, string, Procedure?, IReadOnlyList<ProcedureProblem>) One(string path, Shelf shelf)
    {
        var (file, text) = (Path.GetFileName(path), File.ReadAllText(path));
        var (procedure, problems) = ProcedureReader.Read(file, text, shelf);
        return (file, text, procedure, problems);
    }

    private static IEnumerable<ShelfPiece> Pieces(string folder, string kind)
    {
        var inner = Path.Combine(folder, kind);
        return Directory.Exists(inner)
            ? Directory
                .EnumerateFiles(inner, "*.yaml")
                .Order(StringComparer.Ordinal)
                .Select(f => new ShelfPiece($"{kind}/{Path.GetFileName(f)}", File.ReadAllText(f)))
            : [];
    }
}
