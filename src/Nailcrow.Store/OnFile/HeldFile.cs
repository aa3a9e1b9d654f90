using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.OnFile;

/// <summary>A connection that stays open holds one file; this tells whether it is still the one at the database's place.</summary>
internal sealed class HeldFile(DatabaseFile file)
{
    private readonly FileIdentity? _held = file.Now;

    /// <summary>Asked before anything is acknowledged: a file that was removed takes every write, and keeps none.</summary>
    /// <exception cref="DatabaseGoneException">The file that is open is not the one at the database's place.</exception>
    public void StillThere(NailcrowDb db)
    {
        if (_held is not null && file.Now == _held)
            return;
        // Handles that wait in the pool are of the file that went; whatever is at its place next is opened afresh.
        if (db.Database.GetDbConnection() is SqliteConnection connection)
            SqliteConnection.ClearPool(connection);
        throw new DatabaseGoneException(file.Path);
    }
}
