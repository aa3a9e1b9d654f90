using System.Data.Common;
using System.Globalization;
using System.Linq.Expressions;
using System.Reflection;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Nailcrow.Store.Products;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Tickets.Lists;

/// <summary>
/// The rows of some tickets in one list, as they stand in the database: nothing is read into a type, so that what somebody made
/// of a column is seen as what it is.
/// </summary>
internal sealed class ListRows<TRow>
    where TRow : class
{
    private readonly MappedTable<TRow> _table;
    private readonly string _ticket;
    private readonly ILookup<long, object[]> _kept;

    private ListRows(MappedTable<TRow> table, string ticket, ILookup<long, object[]> kept) =>
        (_table, _ticket, _kept) = (table, ticket, kept);

    /// <param name="ticket">The property that says whose row it is.</param>
    public static async Task<ListRows<TRow>> OfAsync(
        NailcrowDb db,
        IReadOnlyList<long> tickets,
        Expression<Func<TRow, long>> ticket,
        CancellationToken ct
    )
    {
        var table = new MappedTable<TRow>(db);
        var whose = Array.FindIndex(table.Columns, c => c.Property == ((MemberExpression)ticket.Body).Member as PropertyInfo);
        var column = table.Columns[whose].Name;
        var names = string.Join(", ", table.Columns.Select(c => $"\"{c.Name}\""));
        await using var asked = await Asking.RowsAsync(db, $"SELECT {names} FROM {table.Name} WHERE {OneOf(column, tickets)}", ct);
        var kept = new List<(long Ticket, object[] Values)>();
        var row = asked.Reader;
        while (await row.ReadAsync(ct))
        {
            var values = new object[row.FieldCount];
            row.GetValues(values);
            kept.Add((row.GetInt64(whose), values));
        }
        return new(table, column, kept.ToLookup(k => k.Ticket, k => k.Values));
    }

    /// <summary>Removes all rows of these tickets.</summary>
    public async Task DeleteAsync(NailcrowDb db, IReadOnlyCollection<long> tickets)
    {
        if (tickets.Count > 0)
            await Asking.DoAsync(db, $"DELETE FROM {_table.Name} WHERE {OneOf(_ticket, tickets)}", CancellationToken.None);
    }

    /// <summary>Whether the rows of a ticket are these, in whatever order.</summary>
    public bool Are(long ticket, IReadOnlyCollection<TRow> told)
    {
        if (told.Count == 0 || !_kept.Contains(ticket))
            return told.Count == 0 && !_kept.Contains(ticket);
        return _kept[ticket]
            .Select(Told)
            .Order(StringComparer.Ordinal)
            .SequenceEqual(told.Select(r => Told(_table.Columns.Select(c => c.Value(r)))).Order(StringComparer.Ordinal));
    }

    /// <summary>The columns in which the one row of a ticket is not this; null where there is no row.</summary>
    public MappedTable<TRow>.Column[]? Differing(long ticket, TRow told) =>
        _kept[ticket].FirstOrDefault() is { } kept ? [.. _table.Columns.Where((c, i) => Told(kept[i]) != Told(c.Value(told)))] : null;

    // Numbers of our own, as text: a list of any length is no list of parameters.
    private static string OneOf(string column, IEnumerable<long> tickets) => $"\"{column}\" IN ({string.Join(',', tickets)})";

    private static string Told(IEnumerable<object> values) => string.Join('\u001f', values.Select(Told));

    private static string Told(object value) =>
        value switch
        {
            DBNull => "\0", // nothing is not the same as an empty word
            bool yes => yes ? "1" : "0",
            Enum word => Convert.ToInt64(word, CultureInfo.InvariantCulture).ToString(CultureInfo.InvariantCulture),
            byte[] bytes => Convert.ToHexString(bytes),
            DateTime moment => moment.Ticks.ToString(CultureInfo.InvariantCulture),
            _ => Convert.ToString(value, CultureInfo.InvariantCulture) ?? "",
        };
}
