namespace Nailcrow.Procedures;

/// <summary>The pieces that procedures are built from, each by its name, with the text of its file.</summary>
public sealed record Shelf(IReadOnlyDictionary<string, ShelfPiece> Skeletons, IReadOnlyDictionary<string, ShelfPiece> Fragments)
{
    public const string SkeletonFolder = "skeletons";
    public const string FragmentFolder = "fragments";

    public static readonly Shelf Empty = Of([]);

    /// <summary>Sorts pieces by the folder they stand in; a piece's name is that of its file.</summary>
    public static Shelf Of(IEnumerable<ShelfPiece> pieces)
    {
        var sorted = pieces.ToLookup(p => p.Folder);
        return new(Named(sorted[SkeletonFolder]), Named(sorted[FragmentFolder]));
    }

    private static Dictionary<string, ShelfPiece> Named(IEnumerable<ShelfPiece> pieces) =>
        pieces.DistinctBy(p => p.Name).ToDictionary(p => p.Name);
}

/// <summary>One file of the shelf.</summary>
/// <param name="File">With its folder, as it is told in problems: <c>fragments/find-bay.yaml</c>.</param>
public sealed record ShelfPiece(string File, string Text)
{
    public string Folder => File.Contains('/', StringComparison.Ordinal) ? File[..File.LastIndexOf('/')] : "";

    public string Name => File[(File.LastIndexOf('/') + 1)..].Replace(".yaml", "", StringComparison.Ordinal);
}
