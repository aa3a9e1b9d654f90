using System.Data.Common;
using System.Runtime.CompilerServices;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Store.Products;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>
/// Reads the journal row by row, tracked and held by nobody. Whatever somebody made of a column, the row is read: what is wrong
/// with it is verify's to say, and no reason for anybody to see nothing.
/// </summary>
internal static class JournalRows
{
    private const string Columns = "SELECT position, id, ticket, seq, at, recorded_at, \"by\", kind, text, hash FROM journal";

    /// <summary>All entries after a position in order of arrival, with their positions.</summary>
    public static IAsyncEnumerable<(long Position, StoredEntry Entry)> AfterAsync(NailcrowDb db, long position, CancellationToken ct) =>
        ReadAsync(db, $"{Columns} WHERE position > @a ORDER BY position", position, 0, ct);

    /// <summary>A ticket's entries after a number, in order of arrival.</summary>
    public static async Task<List<StoredEntry>> OfTicketAsync(NailcrowDb db, long ticket, long after, CancellationToken ct)
    {
        var found = new List<StoredEntry>();
        await foreach (var (_, entry) in ReadAsync(db, $"{Columns} WHERE ticket = @a AND seq > @b ORDER BY seq", ticket, after, ct))
            found.Add(entry);
        return found;
    }

    /// <summary>The entries of some tickets, in order of arrival on each.</summary>
    public static async Task<ILookup<long, StoredEntry>> OfTicketsAsync(NailcrowDb db, IReadOnlyList<long> tickets, CancellationToken ct)
    {
        var found = new List<StoredEntry>();
        // Numbers of our own, as text: a list of any length is no list of parameters.
        await foreach (
            var (_, entry) in ReadAsync(db, $"{Columns} WHERE ticket IN ({string.Join(',', tickets)}) ORDER BY ticket, seq", 0, 0, ct)
        )
            found.Add(entry);
        return found.ToLookup(e => e.Ticket);
    }

    /// <summary>Only what a seal is made of.</summary>
    public static async IAsyncEnumerable<(long Position, long Ticket, long Seq, string Hash)> HashesAfterAsync(
        NailcrowDb db,
        long position,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        await using var ask = await AskAsync(
            db,
            "SELECT position, ticket, seq, hash FROM journal WHERE position > @a ORDER BY position",
            position,
            0,
            ct
        );
        await using var row = await ask.ExecuteReaderAsync(ct);
        while (await row.ReadAsync(ct))
            yield return (row.GetInt64(0), row.GetInt64(1), row.GetInt64(2), row.GetString(3));
    }

    private static async IAsyncEnumerable<(long Position, StoredEntry Entry)> ReadAsync(
        NailcrowDb db,
        string sql,
        long a,
        long b,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        await using var ask = await AskAsync(db, sql, a, b, ct);
        await using var row = await ask.ExecuteReaderAsync(ct);
        while (await row.ReadAsync(ct))
            yield return (
                row.GetInt64(0),
                new(
                    row.GetValue(1) is Guid id ? id : Id(Text(row, 1)),
                    row.GetInt64(2),
                    row.GetInt64(3),
                    Time(row, 4),
                    Time(row, 5),
                    Text(row, 6),
                    Text(row, 7),
                    Text(row, 8),
                    Text(row, 9)
                )
            );
    }

    private static async Task<DbCommand> AskAsync(NailcrowDb db, string sql, long a, long b, CancellationToken ct)
    {
        var ask = await Asking.CommandAsync(db, sql, ct);
        foreach (var (name, value) in new[] { ("@a", a), ("@b", b) })
        {
            var parameter = ask.CreateParameter();
            (parameter.ParameterName, parameter.Value) = (name, value);
            ask.Parameters.Add(parameter);
        }
        return ask;
    }

    private static DateTimeOffset Time(DbDataReader row, int column) =>
        row.GetValue(column) is DateTime moment ? KeptMoment.Read(moment) : KeptTime.Read(row.GetInt64(column));

    private static string Text(DbDataReader row, int column) => row.IsDBNull(column) ? "" : row.GetString(column);

    /// <summary>What is no id any more still tells one entry from another.</summary>
    private static Guid Id(string kept) =>
        Guid.TryParse(kept, out var id) ? id : new(SHA256.HashData(Encoding.UTF8.GetBytes(kept)).AsSpan(0, 16));
}
