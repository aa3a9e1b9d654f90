using System.Globalization;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store.Moving;

/// <summary>A table as two databases have it.</summary>
/// <param name="IsKept">Its rows are only ever added, so those that are there already are there.</param>
internal sealed record MovedTable(string Name, IReadOnlyList<MovedColumn> Columns, IReadOnlyList<int> Key, bool IsKept)
{
    private static readonly string[] OfNodesOrOfThePlace = ["node", "lease", "shared_key", "record_place", "never_given"];

    public string Names => string.Join(", ", Columns.Select(c => $"\"{c.Name}\""));

    public string KeyNames => string.Join(", ", Key.Select(k => $"\"{Columns[k].Name}\""));

    /// <summary>A column that no two rows have alike: what a row hashes to, or a seal's text. Pictures have none; their ids are made by chance.</summary>
    public string? Mark => new[] { "hash", "text" }.FirstOrDefault(name => Columns.Any(c => c.Name == name));

    /// <summary>All that belong to the record, each after those that its rows point to.</summary>
    public static IReadOnlyList<MovedTable> All(NailcrowDb from, NailcrowDb to)
    {
        var there = Tables(to).ToDictionary(t => t.Name);
        var left = Tables(from).Where(t => !OfNodesOrOfThePlace.Contains(t.Name)).OrderBy(t => t.Name).ToList();
        var ordered = new List<MovedTable>();
        while (left.Count > 0)
        {
            var next = left.First(t => t.ForeignKeyConstraints.All(f => f.PrincipalTable == t || !left.Contains(f.PrincipalTable)));
            left.Remove(next);
            ordered.Add(Of(next, there[next.Name]));
        }
        return [.. ordered.OrderByDescending(t => t.IsKept)]; // a picture goes only where its entry is there
    }

    /// <summary>What a row is known by, as it is said to people.</summary>
    public string Said(object?[] row) => $"{Name} {string.Join(", ", Key.Select(k => Shown(row[k])))}";

    private static string Shown(object? value) =>
        value switch
        {
            byte[] bytes => Convert.ToHexStringLower(bytes),
            IFormattable said => said.ToString(null, CultureInfo.InvariantCulture),
            _ => $"{value}",
        };

    private static MovedTable Of(ITable from, ITable to)
    {
        // What the database makes of other columns by itself is no part of a row.
        var columns = from.Columns.Where(c => !IsMade(c)).Select(c => MovedColumn.Of(c, to.FindColumn(c.Name))).ToList();
        var key = from.PrimaryKey?.Columns.Select(k => columns.FindIndex(c => c.Name == k.Name)).ToList();
        return new(
            from.Name,
            columns,
            key ?? throw new InvalidOperationException($"{from.Name} has no key."),
            JournalGuards.Keep(from.Name)
        );
    }

    private static IEnumerable<ITable> Tables(NailcrowDb db) => db.GetService<IDesignTimeModel>().Model.GetRelationalModel().Tables;

    private static bool IsMade(IColumn column) => column.ComputedColumnSql is not null;
}

/// <summary>A column as two databases have it: what stands in the one, and what has to stand in the other for it.</summary>
internal sealed record MovedColumn(string Name, string StoreType, Type FromKind, Type ToKind, bool IsJson)
{
    private const string Json = "jsonb";

    private ValueConverter? _from;
    private ValueConverter? _to;

    public static MovedColumn Of(IColumn from, IColumn? to)
    {
        if (to is null)
            throw new InvalidOperationException($"{from.Table.Name}.{from.Name} is not in both databases.");
        var (f, t) = (from.StoreTypeMapping, to.StoreTypeMapping);
        var isJson = from.StoreType == Json || to.StoreType == Json;
        var (fromKind, toKind) = isJson ? (typeof(string), typeof(string)) : (Kind(f), Kind(t));
        return new(from.Name, to.StoreType, fromKind, toKind, isJson)
        {
            // Where both keep the same, it goes as it stands, also what this version has no word for.
            _from = fromKind == toKind ? null : f.Converter,
            _to = fromKind == toKind ? null : t.Converter,
        };
    }

    /// <exception cref="NotMovableException">It is not what such a column holds.</exception>
    public object? Moved(object? value)
    {
        if (value is null || FromKind == ToKind)
            return value;
        var meant = _from is null ? value : _from.ConvertFromProvider(value);
        if (_from is not null && !Equals(_from.ConvertToProvider(meant), value))
            throw new NotMovableException($"{Name} holds {value}, which is none that we write");
        return _to is null ? meant : _to.ConvertToProvider(meant);
    }

    public bool Same(object? one, object? other) =>
        (one, other) switch
        {
            (null, null) => true,
            (byte[] a, byte[] b) => a.AsSpan().SequenceEqual(b),
            (string a, string b) when IsJson => JsonNode.DeepEquals(JsonNode.Parse(a), JsonNode.Parse(b)),
            _ => Equals(one, other),
        };

    private static Type Kind(RelationalTypeMapping mapping)
    {
        var kind = mapping.Converter?.ProviderClrType ?? mapping.ClrType;
        return Nullable.GetUnderlyingType(kind) ?? kind;
    }
}

/// <summary>Something stands in a database that cannot stand in the other.</summary>
public sealed class NotMovableException(string what) : Exception(what);
