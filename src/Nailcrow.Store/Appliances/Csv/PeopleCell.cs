using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Terms;

namespace Nailcrow.Store.Appliances.Csv;

/// <summary>How whom to ask at a customer's is written in one cell: "Ansa Hale | getting in | desk 12; Orm Vey | signs | orm@example.org".</summary>
internal static class PeopleCell
{
    public static IReadOnlyList<PersonToAsk>? Read(string? cell) =>
        cell is null ? null : [.. cell.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Select(One)];

    public static string Write(IReadOnlyList<PersonToAsk>? people) => string.Join("; ", people ?? []);

    private static PersonToAsk One(string text) =>
        PersonToAsk.Parse(text).Is(out var person, out var reason) ? person : throw new CsvProblem($"people: {reason}");
}
