using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>The procedures that ship, as they are and with something broken in them.</summary>
internal static class Shipped
{
    public static readonly string Folder = Path.Combine(Repository.Root, "procedures");

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

    public static Procedure BrokenOne(string name, string was, string now) => Changed(name, (was, now));

    /// <summary>With each text in the place of another, in whichever of its files it stands.</summary>
    public static Procedure Changed(string name, params (string Was, string Now)[] changes)
    {
        var texts = Texts.ToDictionary();
        foreach (var (was, now) in changes)
        {
            var holding = texts.Where(t => Belongs(t.Key, name) && t.Value.Contains(was, StringComparison.Ordinal)).ToList();
            holding.ShouldNotBeEmpty($"'{was}' stands nowhere.");
            foreach (var (file, text) in holding)
                texts[file] = text.Replace(was, now, StringComparison.Ordinal);
        }
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
}
