using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Tickets;

/// <summary>The writer's own connection, kept open with its statements prepared; made anew after anything went wrong on it.</summary>
internal sealed class JournalConnection(IDbContextFactory<NailcrowDb> dbs, DatabaseFile? file = null) : IAsyncDisposable
{
    private NailcrowDb? _db;
    private DateTime? _born;
    private PreparedRows<JournalRow>? _journal;
    private PreparedRows<TicketLineRow>? _lines;
    private readonly Dictionary<Type, object> _others = [];

    public NailcrowDb Db => _db ?? throw NotOpen();

    public PreparedRows<JournalRow> Journal => _journal ?? throw NotOpen();

    public PreparedRows<TicketLineRow> Lines => _lines ?? throw NotOpen();

    /// <summary>Rows of a table that is written now and then.</summary>
    public PreparedRows<TRow> Rows<TRow>()
        where TRow : class
    {
        if (!_others.TryGetValue(typeof(TRow), out var rows))
            _others[typeof(TRow)] = rows = new PreparedRows<TRow>(Db);
        return (PreparedRows<TRow>)rows;
    }

    public async Task OpenAsync()
    {
        if (_db is not null)
        {
            _db.ChangeTracker.Clear();
            return;
        }
        _db = await dbs.CreateDbContextAsync();
        await _db.Database.OpenConnectionAsync();
        _born = file?.Born;
        (_journal, _lines) = (new(_db), new(_db));
    }

    /// <summary>Asked before anything is acknowledged: a file that was removed takes every write, and keeps none.</summary>
    /// <exception cref="DatabaseGoneException">The file that is open is not the one at the database's place.</exception>
    public void StillThere()
    {
        if (file is null || (_born is not null && file.Born == _born))
            return;
        // Handles that wait in the pool are of the file that went; whatever is at its place next is opened afresh.
        if (_db?.Database.GetDbConnection() is SqliteConnection connection)
            SqliteConnection.ClearPool(connection);
        throw new DatabaseGoneException(file.Path);
    }

    public async Task RenewAsync()
    {
        await DisposeAsync();
        await OpenAsync();
    }

    public async ValueTask DisposeAsync()
    {
        if (_db is not null)
            await _db.DisposeAsync();
        (_db, _journal, _lines) = (null, null, null);
        _others.Clear();
    }

    private static InvalidOperationException NotOpen() => new("OpenAsync comes first.");
}
