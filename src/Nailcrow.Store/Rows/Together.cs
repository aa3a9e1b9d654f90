using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Nailcrow.Store.Rows;

/// <summary>
/// Rows that are sent to a server in one message, and by one statement where they are written alike: each journey there and back, and each
/// statement, costs more than a row. What is written so is not there for anybody to read, in the same transaction either, before
/// <see cref="SendAsync"/>.
/// </summary>
internal sealed class Together(NailcrowDb db)
{
    private readonly List<Waiting> _waiting = [];

    /// <summary>Rows of one table that are written alike wait together, in the order in which they came.</summary>
    /// <param name="sql">The statement, with an array for each column: <c>@name</c> holds a column's values of all the rows.</param>
    public void Add<TRow>(string sql, MappedTable<TRow>.Column[] columns, TRow row)
        where TRow : class
    {
        if (_waiting.OfType<Waiting<TRow>>().FirstOrDefault(w => w.Sql == sql) is not { } alike)
            _waiting.Add(alike = new(sql, columns));
        alike.Rows.Add(row);
    }

    public void Add(string sql) => _waiting.Add(new(sql));

    public async Task SendAsync()
    {
        if (_waiting.Count == 0)
            return;
        await using var batch = db.Database.GetDbConnection().CreateBatch();
        batch.Transaction = db.Database.CurrentTransaction?.GetDbTransaction();
        foreach (var statement in _waiting)
            batch.BatchCommands.Add(statement.Of(batch));
        _waiting.Clear();
        await batch.PrepareAsync(); // asks for nothing that this connection has prepared before
        await batch.ExecuteNonQueryAsync();
    }

    private class Waiting(string sql)
    {
        public string Sql => sql;

        public virtual DbBatchCommand Of(DbBatch batch)
        {
            var command = batch.CreateBatchCommand();
            command.CommandText = sql;
            return command;
        }
    }

    private sealed class Waiting<TRow>(string sql, MappedTable<TRow>.Column[] columns) : Waiting(sql)
        where TRow : class
    {
        public List<TRow> Rows { get; } = [];

        public override DbBatchCommand Of(DbBatch batch)
        {
            var command = base.Of(batch);
            foreach (var column in columns)
            {
                var parameter = command.CreateParameter();
                (parameter.ParameterName, parameter.Value) = (column.Name, column.Values(Rows));
                command.Parameters.Add(parameter);
            }
            return command;
        }
    }
}
