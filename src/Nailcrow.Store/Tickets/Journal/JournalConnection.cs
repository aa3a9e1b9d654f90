using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Returns.Supplies;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>The writer's own connection, kept open with its statements prepared; made anew after anything went wrong on it.</summary>
internal sealed class JournalConnection(IDbContextFactory<NailcrowDb> dbs, DatabaseFile? file = null) : IAsyncDisposable
{
    private NailcrowDb? _db;
    private HeldFile? _held;
    private Together? _together;
    private PreparedRows<JournalRow>? _journal;
    private PreparedRows<TicketLineRow>? _lines;
    private readonly Dictionary<Type, object> _others = [];

    public NailcrowDb Db => _db ?? throw NotOpen();

    /// <summary>Null while it is not open.</summary>
    public DbConnection? Line => _db?.Database.GetDbConnection();

    public PreparedRows<JournalRow> Journal => _journal ?? throw NotOpen();

    public PreparedRows<TicketLineRow> Lines => _lines ?? throw NotOpen();

    /// <summary>Until then what was written to the journal and the lines may be on its way yet, and nobody in the transaction reads it.</summary>
    public Task SentAsync() => _together?.SendAsync() ?? Task.CompletedTask;

    /// <summary>Adds a word to other nodes, which comes to them once the transaction has ended.</summary>
    public void TellOthers(bool errands)
    {
        if (Db.Product.Telling(errands ? Word.Errands : Word.Entries) is { } word)
            _together?.Add(word);
    }

    /// <summary>Ends a transaction of this connection so that what was written in it stays.</summary>
    /// <exception cref="DatabaseGoneException">What is written here is not kept.</exception>
    public async Task KeepAsync(IDbContextTransaction transaction)
    {
        await SentAsync();
        _held?.StillThere(Db);
        await transaction.CommitAsync();
        Db.ChangeTracker.Clear(); // rows told again next time must not meet themselves
    }

    private long _hasRoomBelow;

    /// <summary>Before a ticket is opened: a place for its entries, where the journal lies in parts.</summary>
    public async Task RoomForAsync(long ticket)
    {
        if (ticket >= _hasRoomBelow)
            _hasRoomBelow = await Db.Product.RoomForAsync(Db, ticket, CancellationToken.None);
    }

    /// <summary>What writes the ledger of parts in this connection's transaction.</summary>
    public LedgerPen Pen => new(Db, Rows<LedgerRow>(), Rows<PartRow>(), _parts ?? throw NotOpen());

    private KeptLines? _parts;

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
        _parts?.Forget(); // of this turn alone: between two others may have written
        if (_db is not null)
        {
            _db.ChangeTracker.Clear();
            return;
        }
        _db = await dbs.CreateDbContextAsync();
        await _db.Database.OpenConnectionAsync();
        _parts = new(_db);
        _held = file is null ? null : new(file);
        _together = _db.Database.GetDbConnection().CanCreateBatch ? new(_db) : null; // a file is no journey away
        (_journal, _lines) = (new(_db, _together), new(_db, _together));
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
        (_db, _together, _journal, _lines, _parts) = (null, null, null, null, null);
        _others.Clear();
    }

    private static InvalidOperationException NotOpen() => new("OpenAsync comes first.");
}
