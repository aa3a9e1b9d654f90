using Microsoft.EntityFrameworkCore;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Returns.Supplies;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>The writer's own connection, kept open with its statements prepared; made anew after anything went wrong on it.</summary>
internal sealed class JournalConnection(IDbContextFactory<NailcrowDb> dbs, DatabaseFile? file = null) : IAsyncDisposable
{
    private NailcrowDb? _db;
    private HeldFile? _held;
    private PreparedRows<JournalRow>? _journal;
    private PreparedRows<TicketLineRow>? _lines;
    private readonly Dictionary<Type, object> _others = [];

    public NailcrowDb Db => _db ?? throw NotOpen();

    public PreparedRows<JournalRow> Journal => _journal ?? throw NotOpen();

    public PreparedRows<TicketLineRow> Lines => _lines ?? throw NotOpen();

    /// <summary>What writes the ledger of parts in this connection's transaction.</summary>
    public LedgerPen Pen => new(Db, Rows<LedgerRow>(), Rows<PartRow>(), _parts);

    private readonly Dictionary<string, List<LedgerRow>> _parts = [];

    /// <summary>The same for what is counted.</summary>
    public SupplyPen Supplies => new(Db, Rows<LedgerRow>(), Rows<SupplyRow>());

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
        _parts.Clear(); // of this turn alone: between two others may have written
        if (_db is not null)
        {
            _db.ChangeTracker.Clear();
            return;
        }
        _db = await dbs.CreateDbContextAsync();
        await _db.Database.OpenConnectionAsync();
        _held = file is null ? null : new(file);
        (_journal, _lines) = (new(_db), new(_db));
    }

    /// <exception cref="DatabaseGoneException">What is written here is not kept.</exception>
    public void StillThere() => _held?.StillThere(Db);

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
