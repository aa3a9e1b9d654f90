using System.Data.Common;
using System.Reflection;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage;

namespace Nailcrow.Store;

/// <summary>
/// Writes rows of one table with statements that are prepared once, on one connection that stays open. Names, types
/// and conversions are EF's own, so it works wherever the mapping does; EF's change tracking costs ten times the write.
/// </summary>
internal sealed class PreparedRows<TRow>
    where TRow : class
{
    private sealed record Column(string Name, PropertyInfo Property, RelationalTypeMapping Mapping)
    {
        public object Value(TRow row)
        {
            var value = Property.GetValue(row);
            return (value is not null && Mapping.Converter is { } converter ? converter.ConvertToProvider(value) : value) ?? DBNull.Value;
        }
    }

    private readonly NailcrowDb _db;
    private readonly string _table;
    private readonly Column[] _columns;
    private readonly Column _key;
    private readonly Dictionary<string, DbCommand> _prepared = [];

    public PreparedRows(NailcrowDb db)
    {
        _db = db;
        var entity = db.Model.FindEntityType(typeof(TRow)) ?? throw new InvalidOperationException($"{typeof(TRow).Name} is not mapped.");
        _table = entity.GetTableName() ?? throw new InvalidOperationException($"{typeof(TRow).Name} has no table.");
        _columns = [.. entity.GetProperties().Where(p => p.ValueGenerated == ValueGenerated.Never).Select(Of)];
        _key = Of(entity.FindPrimaryKey()?.Properties[0] ?? throw new InvalidOperationException($"{_table} has no key."));
    }

    public Task InsertAsync(TRow row) =>
        ExecuteAsync(
            "insert",
            () => $"INSERT INTO {_table} ({string.Join(", ", _columns.Select(c => $"\"{c.Name}\""))}) VALUES ({string.Join(", ", _columns.Select(Parameter))})",
            _columns,
            row);

    /// <summary>Inserts, or replaces the row that has this key. The form is SQLite's and PostgreSQL's alike.</summary>
    public Task UpsertAsync(TRow row) =>
        ExecuteAsync(
            "upsert",
            () => $"INSERT INTO {_table} ({string.Join(", ", _columns.Select(c => $"\"{c.Name}\""))}) VALUES ({string.Join(", ", _columns.Select(Parameter))}) "
                + $"ON CONFLICT (\"{_key.Name}\") DO UPDATE SET {string.Join(", ", _columns.Where(c => c.Name != _key.Name).Select(c => $"\"{c.Name}\" = excluded.\"{c.Name}\""))}",
            _columns,
            row);

    /// <summary>Writes only what differs: an index whose columns did not change is left alone.</summary>
    public Task UpdateAsync(TRow before, TRow after)
    {
        var changed = _columns.Where(c => !c.Value(before).Equals(c.Value(after))).ToArray();
        return changed.Length == 0
            ? Task.CompletedTask
            : ExecuteAsync(
                string.Join(',', changed.Select(c => c.Name)),
                () => $"UPDATE {_table} SET {string.Join(", ", changed.Select(c => $"\"{c.Name}\" = {Parameter(c)}"))} WHERE \"{_key.Name}\" = {Parameter(_key)}",
                [.. changed, _key],
                after);
    }

    private async Task ExecuteAsync(string which, Func<string> sql, Column[] columns, TRow row)
    {
        if (!_prepared.TryGetValue(which, out var command))
            _prepared[which] = command = Prepare(sql(), columns);
        command.Transaction = _db.Database.CurrentTransaction?.GetDbTransaction();
        for (var i = 0; i < columns.Length; i++)
            command.Parameters[i].Value = columns[i].Value(row);
        await command.ExecuteNonQueryAsync();
    }

    private DbCommand Prepare(string sql, Column[] columns)
    {
        var command = _db.Database.GetDbConnection().CreateCommand();
        command.CommandText = sql;
        foreach (var column in columns)
            command.Parameters.Add(column.Mapping.CreateParameter(command, Parameter(column), null, nullable: true));
        return command;
    }

    private static string Parameter(Column column) => $"@{column.Name}";

    private static Column Of(IProperty property) =>
        new(property.GetColumnName(), property.PropertyInfo ?? throw new InvalidOperationException($"{property.Name} is no plain property."), property.GetRelationalTypeMapping());
}
