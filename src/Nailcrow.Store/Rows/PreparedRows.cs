using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Nailcrow.Store.Rows;

/// <summary>
/// Writes rows of one table with statements that are prepared once, on one connection that stays open. Names, types
/// and conversions are EF's own, so it works wherever the mapping does; EF's change tracking costs ten times the write.
/// </summary>
/// <remarks>With a <see cref="Together"/> rows are only handed to it, and there once it has sent them.</remarks>
internal sealed class PreparedRows<TRow>
    where TRow : class
{
    private readonly NailcrowDb _db;
    private readonly Together? _together;
    private readonly string _table;
    private readonly MappedTable<TRow>.Column[] _columns;
    private readonly MappedTable<TRow>.Column[] _key;
    private readonly Dictionary<string, DbCommand> _prepared = [];

    public PreparedRows(NailcrowDb db, Together? together = null)
    {
        (_db, _together) = (db, together);
        var table = new MappedTable<TRow>(db);
        (_table, _columns, _key) = (table.Name, table.Columns, table.Key);
    }

    public Task InsertAsync(TRow row) => WriteAsync("insert", () => $"INSERT INTO {_table} ({Names}) {Given()}", _columns, row);

    /// <summary>Inserts, or replaces the row that has this key. The form is SQLite's and PostgreSQL's alike.</summary>
    public Task UpsertAsync(TRow row) =>
        WriteAsync(
            "upsert",
            () =>
                $"INSERT INTO {_table} ({Names}) {Given()} "
                + $"ON CONFLICT ({string.Join(", ", _key.Select(k => $"\"{k.Name}\""))}) DO UPDATE SET "
                + $"{string.Join(", ", _columns.Where(c => !IsKey(c)).Select(c => $"\"{c.Name}\" = excluded.\"{c.Name}\""))}",
            _columns,
            row
        );

    /// <summary>Writes only what differs: an index whose columns did not change is left alone.</summary>
    public Task UpdateAsync(TRow before, TRow after) =>
        UpdateAsync([.. _columns.Where(c => !c.Value(before).Equals(c.Value(after)))], after);

    /// <summary>Writes these columns of a row that is there.</summary>
    public Task UpdateAsync(MappedTable<TRow>.Column[] changed, TRow after) =>
        changed.Length == 0
            ? Task.CompletedTask
            : WriteAsync(string.Join(',', changed.Select(c => c.Name)), () => Update(changed), [.. changed, .. _key], after);

    /// <summary>
    /// Makes rows of a list what they have to be, by what they were: most are as they were, and are left alone. What older rules have
    /// left there is in nobody's way, and is told anew by <see cref="Tickets.Lists.Projections"/>.
    /// </summary>
    public async Task BecomeAsync(IEnumerable<TRow> before, IEnumerable<TRow> after)
    {
        var was = before.ToDictionary(KeyOf);
        foreach (var row in after)
            if (!was.Remove(KeyOf(row), out var earlier))
                await UpsertAsync(row);
            else
                await UpdateAsync(earlier, row);
        foreach (var gone in was.Values)
            await WriteAsync(
                "delete",
                () => $"DELETE FROM {_table} {(_together is null ? "" : $"USING {Rows(_key)} ")}WHERE {TheRow()}",
                _key,
                gone
            );
    }

    private string KeyOf(TRow row) => string.Join('\u001f', _key.Select(k => k.Value(row)));

    private bool IsKey(MappedTable<TRow>.Column column) => _key.Any(k => k.Name == column.Name);

    private string Names => string.Join(", ", _columns.Select(c => $"\"{c.Name}\""));

    private string Given() =>
        _together is null
            ? $"VALUES ({string.Join(", ", _columns.Select(Parameter))})"
            : $"SELECT {Names} FROM {Rows(_columns)} ORDER BY nth";

    private string Update(MappedTable<TRow>.Column[] changed)
    {
        var set = string.Join(", ", changed.Select(c => $"\"{c.Name}\" = {Value(c)}"));
        return $"UPDATE {_table} SET {set} {(_together is null ? "" : $"FROM {Rows([.. changed, .. _key])} ")}WHERE {TheRow()}";
    }

    private string TheRow() => string.Join(" AND ", _key.Select(k => $"{_table}.\"{k.Name}\" = {Value(k)}"));

    /// <summary>A column of the one row, or of each of those that are sent together.</summary>
    private string Value(MappedTable<TRow>.Column column) => _together is null ? Parameter(column) : $"given.\"{column.Name}\"";

    /// <summary>As a table, in the order in which they came.</summary>
    private static string Rows(MappedTable<TRow>.Column[] columns) =>
        $"unnest({string.Join(", ", columns.Select(c => $"{Parameter(c)}::{c.Mapping.StoreType}[]"))}) WITH ORDINALITY "
        + $"AS given({string.Join(", ", columns.Select(c => $"\"{c.Name}\""))}, nth)";

    private async Task WriteAsync(string which, Func<string> sql, MappedTable<TRow>.Column[] columns, TRow row)
    {
        if (!_prepared.TryGetValue(which, out var command))
            _prepared[which] = command = Statement(sql(), columns);
        if (_together is not null)
        {
            _together.Add(command.CommandText, columns, row);
            return;
        }
        for (var i = 0; i < columns.Length; i++)
            command.Parameters[i].Value = columns[i].Value(row);
        command.Transaction = _db.Database.CurrentTransaction?.GetDbTransaction();
        await command.PrepareAsync(); // does nothing where it is
        await command.ExecuteNonQueryAsync();
    }

    private DbCommand Statement(string sql, MappedTable<TRow>.Column[] columns)
    {
        var command = _db.Database.GetDbConnection().CreateCommand();
        command.CommandText = sql;
        foreach (var column in columns)
            command.Parameters.Add(column.Mapping.CreateParameter(command, Parameter(column), null, nullable: true));
        return command;
    }

    private static string Parameter(MappedTable<TRow>.Column column) => $"@{column.Name}";
}
