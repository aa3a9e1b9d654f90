using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>The procedures that ship, as they are and with something broken in them.</summary>
internal static class Shipped
{
    public static readonly string Folder = Path.Combine(Root(), "procedures");

    private static readonly IReadOnlyDictionary<string, string> Texts = Directory
        .EnumerateFiles(Folder, "*.yaml", SearchOption.AllDirectories)
        .ToDictionary(f => Path.GetRelativePath(Folder, f).Replace('\\', '/'), File.ReadAllText);

    public static IEnumerable<string> Names =>
        Texts.Keys.Where(f => !f.Contains('/', StringComparison.Ordinal)).Select(f => f[..^5]).Order(StringComparer.Ordinal);

    public static Procedure Named(string name) =>
        Read(name, Texts) is ({ } procedure, _)
            ? procedure
            : throw new InvalidDataException($"{name} has problems: {string.Join("\n", Read(name, Texts).Problems)}");

    /// <summary>What the proof says once a text stands where another one stood, in whichever of its files holds it.</summary>
    public static ProofResult Broken(string name, string was, string now) => Prover.Prove(BrokenOne(name, was, now));

    public static Procedure BrokenOne(string name, string was, string now)
    {
        var texts = Texts.ToDictionary(
            t => t.Key,
            t => Belongs(t.Key, name) ? t.Value.Replace(was, now, StringComparison.Ordinal) : t.Value
        );
        texts.Count(t => t.Value != Texts[t.Key]).ShouldBeGreaterThan(0, $"'{was}' stands nowhere.");
        var (procedure, problems) = Read(name, texts);
        return procedure ?? throw new InvalidDataException(string.Join("\n", problems));
    }

    public static (Procedure? Procedure, IReadOnlyList<ProcedureProblem> Problems) Read(string file, string text) =>
        ProcedureReader.Read(file, text, Shelved(Texts));

    private static (Procedure? Procedure, IReadOnlyList<ProcedureProblem> Problems) Read(
        string name,
        IReadOnlyDictionary<string, string> texts
    ) => ProcedureReader.Read($"{name}.yaml", texts[$"{name}.yaml"], Shelved(texts));

    private static Shelf Shelved(IReadOnlyDictionary<string, string> texts) =>
        Shelf.Of(texts.Where(t => t.Key.Contains('/', StringComparison.Ordinal)).Select(t => new ShelfPiece(t.Key, t.Value)));

    private static bool Belongs(string file, string name) => file.Contains('/', StringComparison.Ordinal) || file == $"{name}.yaml";

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Nailcrow.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new DirectoryNotFoundException("Nailcrow.slnx is nowhere above the tests.");
    }
}
