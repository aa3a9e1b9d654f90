using Microsoft.EntityFrameworkCore;

namespace Nailcrow.Store.Tickets;

/// <summary>The writer's own connection, kept open with its statements prepared; made anew after anything went wrong on it.</summary>
internal sealed class JournalConnection(IDbContextFactory<NailcrowDb> dbs) : IAsyncDisposable
{
    private NailcrowDb? _db;
    private PreparedRows<JournalRow>? _journal;
    private PreparedRows<TicketLineRow>? _lines;

    public NailcrowDb Db => _db ?? throw NotOpen();

    public PreparedRows<JournalRow> Journal => _journal ?? throw NotOpen();

    public PreparedRows<TicketLineRow> Lines => _lines ?? throw NotOpen();

    public async Task OpenAsync()
    {
        if (_db is not null)
        {
            _db.ChangeTracker.Clear();
            return;
        }
        _db = await dbs.CreateDbContextAsync();
        await _db.Database.OpenConnectionAsync();
        (_journal, _lines) = (new(_db), new(_db));
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
    }

    private static InvalidOperationException NotOpen() => new("OpenAsync comes first.");
}
