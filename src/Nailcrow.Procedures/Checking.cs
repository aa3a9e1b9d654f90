using Nailcrow.Core.Procedures.Checked;

namespace Nailcrow.Procedures;

/// <summary>From a set of files to a procedure, and to what the proof says of it.</summary>
public static class Checking
{
    public static ProcedureView View(string file, Procedure? procedure, IReadOnlyList<ProcedureProblem> problems)
    {
        if (procedure is null)
            return new(file, null, null, null, 0, problems, []);
        var (proof, trusted) = (Prover.Prove(procedure), Trusting.Of(procedure));
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
            $"{procedure.AppliesTo}",
            ByName: procedure.ByName,
            Trusted: trusted,
            Trusting: Trusting.Word(trusted)
        );
    }

    public static ProcedureView View(string file, IReadOnlyDictionary<string, string> files)
    {
        var (procedure, problems) = Read(file, files);
        return View(file, procedure, problems);
    }

    /// <param name="files">The procedure's own file and those beside it, by name.</param>
    public static (Procedure? Procedure, IReadOnlyList<ProcedureProblem> Problems) Read(
        string file,
        IReadOnlyDictionary<string, string> files
    ) => ProcedureReader.Read(file, files[file], Shelf.Of(files.Where(f => f.Key != file).Select(f => new ShelfPiece(f.Key, f.Value))));
}
