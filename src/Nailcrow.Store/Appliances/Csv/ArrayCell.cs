using System.Globalization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;

namespace Nailcrow.Store.Appliances.Csv;

/// <summary>How an appliance's arrays are written in one cell: "vault:raid6:6:8TB desk:raid50:8:8TB:groups=2".</summary>
internal static class ArrayCell
{
    public static IReadOnlyList<ArrayDesign>? Read(string? cell) =>
        cell is null ? null : [.. cell.Split([' ', '|'], StringSplitOptions.RemoveEmptyEntries).Select(One)];

    public static string Write(IReadOnlyList<ArrayDesign>? arrays) =>
        string.Join(
            ' ',
            (arrays ?? []).Select(a =>
                string.Join(
                        ':',
                        new[]
                        {
                            a.Name,
                            Words.Of(a.Level),
                            a.Members.ToString(CultureInfo.InvariantCulture),
                            a.MemberBytes?.ToString(CultureInfo.InvariantCulture) ?? "",
                            a.Groups is { } g ? $"groups={g}" : "",
                            a.Parity is { } m ? $"parity={m}" : "",
                        }
                    )
                    .TrimEnd(':')
            )
        );

    private static ArrayDesign One(string text)
    {
        var parts = text.Split(':');
        if (
            parts.Length < 3
            || Words.Parse<ArrayLevel>(parts[1], "level") is not Parsed<ArrayLevel>.Ok(var level)
            || !int.TryParse(parts[2], out var members)
        )
            throw new CsvProblem(
                $"arrays has '{text}'; write NAME:LEVEL:MEMBERS, and :BYTES, :groups=2 or :parity=2 where known. Levels: {Words.List<ArrayLevel>()}."
            );
        int? Named(string name) =>
            parts.Skip(3).FirstOrDefault(p => p.StartsWith(name + "=", StringComparison.Ordinal)) is { } given
            && int.TryParse(given[(name.Length + 1)..], out var value)
                ? value
                : null;
        return new(
            parts[0],
            level,
            members,
            parts.Length > 3 && parts[3].Length > 0 && !parts[3].Contains('=') ? Bytes(parts[3]) : null,
            Named("groups"),
            Named("parity")
        );
    }

    public static long Bytes(string text) =>
        ByteSize.Parse(text) switch
        {
            Parsed<long>.Ok(var bytes) => bytes,
            Parsed<long>.Refused(var reason) => throw new CsvProblem(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
}
