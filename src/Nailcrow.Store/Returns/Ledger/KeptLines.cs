using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Store.Products;

namespace Nailcrow.Store.Returns.Ledger;

/// <summary>One line of the ledger that is there: what the next is chained to, and what it says, null where it cannot be read.</summary>
internal sealed record KeptLine(long Seq, string Hash, Movement? Says);

/// <summary>
/// The lines of a part, asked by a statement that is prepared once for a connection: each movement needs them, in the transaction that
/// everybody waits for, and making out a question takes longer than answering it.
/// </summary>
internal sealed class KeptLines(NailcrowDb db)
{
    private readonly Dictionary<string, List<KeptLine>> _read = [];
    private DbCommand? _asks;

    /// <summary>From here on others may have written: what was read is asked anew.</summary>
    public void Forget() => _read.Clear();

    /// <summary>The part's lines, oldest first. What is added to them counts as read until <see cref="Forget"/>.</summary>
    /// <param name="serial">As the ledger has it.</param>
    public async Task<List<KeptLine>> OfAsync(string serial)
    {
        if (_read.TryGetValue(serial, out var known))
            return known;
        _asks ??= await QuestionAsync();
        _asks.Parameters[0].Value = serial;
        _asks.Transaction = db.Database.CurrentTransaction?.GetDbTransaction();
        await _asks.PrepareAsync(); // does nothing where it is
        var lines = new List<KeptLine>();
        await using (var row = await _asks.ExecuteReaderAsync())
            while (await row.ReadAsync())
                lines.Add(new(row.GetInt64(0), row.GetString(1), MovementText.Read(row.GetFieldValue<byte[]>(2))));
        return _read[serial] = lines;
    }

    private async Task<DbCommand> QuestionAsync()
    {
        var asks = await Asking.CommandAsync(
            db,
            "SELECT seq, hash, text FROM ledger WHERE serial = @serial ORDER BY seq",
            CancellationToken.None
        );
        var serial = asks.CreateParameter();
        (serial.ParameterName, serial.DbType) = ("@serial", System.Data.DbType.String);
        asks.Parameters.Add(serial);
        return asks;
    }
}
