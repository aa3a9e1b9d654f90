using System.Data.Common;
using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Store.Tickets;

/// <summary>The journal in order of arrival, a row at a time, for whoever reads all of it: tracked by nobody, held by nobody.</summary>
internal static class JournalRows
{
    /// <summary>Entries after a position, with their positions.</summary>
    public static async IAsyncEnumerable<(long Position, StoredEntry Entry)> AfterAsync(NailcrowDb db, long position, [EnumeratorCancellation] CancellationToken ct)
    {
        var time = db.Model.FindEntityType(typeof(JournalRow))?.FindProperty(nameof(JournalRow.At))?.GetRelationalTypeMapping().Converter
            ?? throw new InvalidOperationException("Times of the journal are kept through a converter.");
        await db.Database.OpenConnectionAsync(ct);
        await using var ask = Ask(db, "SELECT position, id, ticket, seq, at, recorded_at, \"by\", kind, text, hash FROM journal WHERE position > @after ORDER BY position", position);
        await using var row = await ask.ExecuteReaderAsync(ct);
        while (await row.ReadAsync(ct))
            yield return (row.GetInt64(0), new(
                Guid.Parse(row.GetString(1)), row.GetInt64(2), row.GetInt64(3),
                (DateTimeOffset)time.ConvertFromProvider(row.GetInt64(4))!, // the column takes no null
                (DateTimeOffset)time.ConvertFromProvider(row.GetInt64(5))!, // likewise
                row.GetString(6), row.GetString(7), row.GetString(8), row.GetString(9)));
    }

    /// <summary>Only what a seal is made of.</summary>
    public static async IAsyncEnumerable<(long Position, long Ticket, long Seq, string Hash)> HashesAfterAsync(NailcrowDb db, long position, [EnumeratorCancellation] CancellationToken ct)
    {
        await db.Database.OpenConnectionAsync(ct);
        await using var ask = Ask(db, "SELECT position, ticket, seq, hash FROM journal WHERE position > @after ORDER BY position", position);
        await using var row = await ask.ExecuteReaderAsync(ct);
        while (await row.ReadAsync(ct))
            yield return (row.GetInt64(0), row.GetInt64(1), row.GetInt64(2), row.GetString(3));
    }

    private static DbCommand Ask(NailcrowDb db, string sql, long after)
    {
        var ask = db.Database.GetDbConnection().CreateCommand();
        ask.CommandText = sql;
        var parameter = ask.CreateParameter();
        (parameter.ParameterName, parameter.Value) = ("@after", after);
        ask.Parameters.Add(parameter);
        return ask;
    }
}
