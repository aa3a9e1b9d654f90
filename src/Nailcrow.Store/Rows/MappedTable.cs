using System.Reflection;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage;

namespace Nailcrow.Store.Rows;

/// <summary>A table as EF maps it: names, types and conversions are EF's own, for those who write and read it row by row.</summary>
internal sealed class MappedTable<TRow>
    where TRow : class
{
    public MappedTable(NailcrowDb db)
    {
        var entity = db.Model.FindEntityType(typeof(TRow)) ?? throw new InvalidOperationException($"{typeof(TRow).Name} is not mapped.");
        Name = entity.GetTableName() ?? throw new InvalidOperationException($"{typeof(TRow).Name} has no table.");
        Columns = [.. entity.GetProperties().Where(p => p.ValueGenerated == ValueGenerated.Never).Select(Of)];
        Key = [.. (entity.FindPrimaryKey() ?? throw new InvalidOperationException($"{Name} has no key.")).Properties.Select(Of)];
    }

    public string Name { get; }

    /// <summary>Those that are ours to write; what the database numbers by itself is not among them.</summary>
    public Column[] Columns { get; }

    /// <summary>What a row is known by, which may take several columns.</summary>
    public Column[] Key { get; }

    private static Column Of(IProperty property) =>
        new(
            property.GetColumnName(),
            property.PropertyInfo ?? throw new InvalidOperationException($"{property.Name} is no plain property."),
            property.GetGetter(),
            property.GetRelationalTypeMapping()
        );

    public sealed record Column(string Name, PropertyInfo Property, IClrPropertyGetter Getter, RelationalTypeMapping Mapping)
    {
        /// <summary>What stands in the database for a row.</summary>
        public object Value(TRow row)
        {
            var value = Getter.GetClrValue(row);
            return (value is not null && Mapping.Converter is { } converter ? converter.ConvertToProvider(value) : value) ?? DBNull.Value;
        }

        /// <summary>What stands in the database for these rows, as an array of its kind.</summary>
        public Array Values(IReadOnlyList<TRow> rows)
        {
            var values = Array.CreateInstance(Kept(), rows.Count);
            for (var i = 0; i < rows.Count; i++)
                if (Value(rows[i]) is not DBNull and var value)
                    values.SetValue(value, i);
            return values;
        }

        /// <summary>The kind that the database holds; one that may be missing where it is a value.</summary>
        private Type Kept()
        {
            var kind = Mapping.Converter?.ProviderClrType ?? Mapping.ClrType;
            return kind.IsValueType && Nullable.GetUnderlyingType(kind) is null ? typeof(Nullable<>).MakeGenericType(kind) : kind;
        }
    }
}
