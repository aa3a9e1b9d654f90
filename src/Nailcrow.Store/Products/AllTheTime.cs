using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Products;

/// <summary>
/// Whatever goes over everything there is takes longer the more that is, and is not given up after the half minute in which a server has to
/// answer everybody else.
/// </summary>
internal static class AllTheTime
{
    private const int NoLimit = 0;

    /// <summary>Until it is disposed of, a server is waited for as long as it takes. A file is read here, and nobody waits for it.</summary>
    public static IDisposable TakesAllTheTimeItNeeds(this NailcrowDb db)
    {
        if (db.Product.HasOthers)
            db.Database.SetCommandTimeout(NoLimit);
        return new Until(db);
    }

    private sealed class Until(NailcrowDb db) : IDisposable
    {
        public void Dispose() => db.Database.SetCommandTimeout(null);
    }
}
