using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;

namespace Nailcrow.Store.Products;

/// <summary>What transactions are about that have to be alone in it.</summary>
internal enum WritersTurn
{
    /// <summary>Bringing the tables to today's form.</summary>
    Tables = 1,

    /// <summary>
    /// Writing the journal. Positions are so given in the order in which they come to be seen, and whoever resumes from one has skipped
    /// none.
    /// </summary>
    Journal = 2,

    /// <summary>Who may come in, and the security log: whoever is the last administrator, or has tried too often, is so for everybody.</summary>
    House = 3,

    /// <summary>Keeping what comes in: a message that two nodes hear counts once.</summary>
    Intake = 4,

    /// <summary>Sealing: each seal goes on from the one before.</summary>
    Seals = 5,
}

/// <summary>What SQLite and PostgreSQL do each in its own way. Whatever is asked of both alike stands where it is asked, and not here.</summary>
internal abstract class DatabaseProduct
{
    /// <summary>
    /// A turn that takes longer than a transaction should, until it is disposed of. On the file there is nobody else to wait for: one
    /// process writes it.
    /// </summary>
    public virtual Task<IAsyncDisposable> TurnAsync(NailcrowDb db, WritersTurn turn, CancellationToken ct) =>
        Task.FromResult<IAsyncDisposable>(new NoTurn());

    private sealed class NoTurn : IAsyncDisposable
    {
        public ValueTask DisposeAsync() => ValueTask.CompletedTask;
    }

    /// <summary>Whether other processes may work on it at the same time.</summary>
    public virtual bool HasOthers => false;

    /// <summary>After a database's tables were made or changed.</summary>
    public virtual Task MadeAsync(NailcrowDb db, CancellationToken ct) => Task.CompletedTask;

    /// <summary>Everything read within it is as of one moment, and nobody who writes meanwhile is held up.</summary>
    public abstract Task<IDbContextTransaction> BeginReadingAsync(NailcrowDb db, CancellationToken ct);

    /// <summary>
    /// A transaction that is alone in what it is about, from here to its end, whatever node others are on: what it reads first is so
    /// until it is through.
    /// </summary>
    public abstract Task<IDbContextTransaction> BeginAsync(NailcrowDb db, WritersTurn turn, CancellationToken ct);

    /// <summary>Has a place for a ticket's entries made before they come, where the journal lies in parts.</summary>
    /// <returns>Tickets below this number need not ask.</returns>
    public virtual Task<long> RoomForAsync(NailcrowDb db, long ticket, CancellationToken ct) => Task.FromResult(long.MaxValue);

    /// <summary>Has a place for what comes in made before it comes, where that lies in parts.</summary>
    /// <returns>What came before then need not ask.</returns>
    public virtual Task<DateTimeOffset> RoomForIntakeAsync(NailcrowDb db, CancellationToken ct) => Task.FromResult(DateTimeOffset.MaxValue);

    /// <summary>Lets go of what came in before a moment in whole parts, where it lies in parts and nobody waits for anything of one.</summary>
    /// <param name="over">The words for what became of a message that nobody waits for any more.</param>
    /// <returns>How many messages are gone.</returns>
    public virtual Task<int> TrimIntakeAsync(NailcrowDb db, DateTimeOffset before, IEnumerable<string> over, CancellationToken ct) =>
        Task.FromResult(0);

    /// <summary>Whether there is a statement that empties a table without removing its rows one by one.</summary>
    public virtual bool CanEmptyTables => false;

    /// <summary>The guards that are there, by name, each as it stands.</summary>
    public abstract Task<IReadOnlyDictionary<string, string>> GuardsAsync(NailcrowDb db, CancellationToken ct);

    /// <summary>How a guard stands in the database where nobody has touched it; compared with <see cref="GuardsAsync"/>.</summary>
    public abstract string Standing(JournalGuard guard);

    /// <summary>Puts a guard there, in place of whatever has its name.</summary>
    public abstract IEnumerable<string> Setting(JournalGuard guard);

    /// <summary>How many rows were ever added to a table that is only added to, as is remembered beside it.</summary>
    public abstract Task<long> EverGivenAsync(NailcrowDb db, string table, CancellationToken ct);

    /// <summary>Of these tickets, those that have a text anywhere in asset, serial, site or customer, by an index of its parts.</summary>
    public abstract IQueryable<TicketLineRow> HavingPart(NailcrowDb db, IQueryable<TicketLineRow> lines, string text, long number);

    /// <summary>Gathers the index of parts anew from the lists, whatever somebody made of it.</summary>
    public virtual Task RefillPartsAsync(NailcrowDb db) => Task.CompletedTask;

    /// <summary>A statement that tells other nodes, once its transaction has ended, what was written in it; null where there are none.</summary>
    public virtual string? Telling(Word word) => null;

    /// <summary>Whether a lease is its node's still, and stays so until the transaction ends.</summary>
    public virtual Task<bool> HoldsAsync(NailcrowDb db, Lease lease) => Task.FromResult(true);

    /// <summary>A node that works here now and is older than the release before this one, by its name and release; null where there is none.</summary>
    public virtual Task<string?> TooOldAsync(NailcrowDb db, CancellationToken ct) => Task.FromResult<string?>(null);

    /// <summary>Around the removal of something whose bytes are not to be left in the file.</summary>
    public virtual Task WriteOverAsync(NailcrowDb db, bool begin) => Task.CompletedTask;
}
