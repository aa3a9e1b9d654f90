using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Language;

namespace Nailcrow.Cli.Procedures;

/// <summary>Procedure files on this machine; skeletons and fragments are looked for beside them.</summary>
internal static class ProcedureFiles
{
    /// <summary>The procedure in a file.</summary>
    /// <exception cref="Refusal">It has problems; each is told with file, line and column.</exception>
    public static Procedure Read(Call call, string path)
    {
        var (procedure, problems) = Find(path);
        if (procedure is not null)
            return procedure;
        if (call.Json)
            call.Screen.Json(new ProcedureView(path, null, null, null, 0, problems, []), ContractJson.Default.ProcedureView);
        throw new Refusal(string.Join(Environment.NewLine, problems));
    }

    public static (Procedure? Procedure, IReadOnlyList<ProcedureProblem> Problems) Find(string path) =>
        ProcedureReader.Read(path, File.ReadAllText(path), ProcedureFolder.ShelfOf(Path.GetDirectoryName(Path.GetFullPath(path)) ?? "."));
}
