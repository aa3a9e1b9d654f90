using Nailcrow.Core.Appliances;

namespace Nailcrow.Store.Appliances.Csv;

/// <summary>How an appliance's further enclosures are written in one cell: "E1:tollard-e24:TOLE24-033 E2:tollard-e24:TOLE24-034".</summary>
internal static class ExpansionCell
{
    public static IReadOnlyList<Expansion>? Read(string? cell) =>
        cell is null ? null : [.. cell.Split([' ', '|'], StringSplitOptions.RemoveEmptyEntries).Select(One)];

    public static string Write(IReadOnlyList<Expansion>? expansions) =>
        string.Join(' ', (expansions ?? []).Select(e => $"{e.Name}:{e.Model}:{e.Serial}"));

    private static Expansion One(string text) =>
        text.Split(':', 3) is [{ Length: > 0 } name, { Length: > 0 } model, { Length: > 0 } serial]
            ? new(name, model, serial)
            : throw new CsvProblem($"expansions has '{text}'; write NAME:MODEL:SERIAL, as E1:tollard-e24:TOLE24-033.");
}
