using Nailcrow.Client.Procedures;
using Nailcrow.Core.Procedures;
using Nailcrow.Store.Procedures;

namespace Nailcrow.Service.Procedures;

/// <summary>From a set of files to a procedure, and to what the proof says of it.</summary>
internal static class Proved
{
    public static ProcedureView View(string file, IReadOnlyDictionary<string, string> files)
    {
        var (procedure, problems) = Read(file, files);
        if (procedure is null)
            return new(file, null, null, null, 0, problems, []);
        var proof = Prover.Prove(procedure);
        return new(
            file,
            procedure.Id,
            procedure.Title,
            procedure.Version,
            procedure.Steps.Count,
            [],
            proof.Findings,
            proof.States,
            procedure.ComesBack,
            $"{procedure.AppliesTo}"
        );
    }

    /// <exception cref="InvalidDataException">It cannot be read; the library lists none of those.</exception>
    public static Procedure Read(PublishedProcedure published) =>
        Read(published.File, published.Files) is ({ } procedure, _)
            ? procedure
            : throw new InvalidDataException(
                $"Procedure '{published.Procedure}' {published.Version} was published and cannot be read: {string.Join(" ", Read(published.File, published.Files).Problems)}"
            );

    public static (Procedure? Procedure, IReadOnlyList<ProcedureProblem> Problems) Read(
        string file,
        IReadOnlyDictionary<string, string> files
    ) => ProcedureReader.Read(file, files[file], Shelf.Of(files.Where(f => f.Key != file).Select(f => new ShelfPiece(f.Key, f.Value))));
}
