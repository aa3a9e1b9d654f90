using Nailcrow.Procedures;
using Nailcrow.Store.Procedures;

namespace Nailcrow.Service.Procedures;

/// <summary>A published version as the procedure it is.</summary>
internal static class Proved
{
    /// <exception cref="InvalidDataException">It cannot be read; the library lists none of those.</exception>
    public static Procedure Read(PublishedProcedure published) =>
        Checking.Read(published.File, published.Files) is ({ } procedure, _)
            ? procedure
            : throw new InvalidDataException(
                $"Procedure '{published.Procedure}' {published.Version} was published and cannot be read: "
                    + $"{string.Join(" ", Checking.Read(published.File, published.Files).Problems)}"
            );
}
