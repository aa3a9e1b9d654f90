using System.Text.RegularExpressions;

namespace Nailcrow.Store.Tests;

/// <summary>What the tests do to a store behind its back is written for SQLite; the same in PostgreSQL's words.</summary>
internal static partial class PostgresSql
{
    private static readonly Dictionary<string, string> Tables = new()
    {
        ["journal"] = "journal",
        ["photo"] = "photo",
        ["ledger"] = "ledger",
        ["security"] = "security_line",
        ["seal"] = "seal",
    };

    public static string Of(string sql)
    {
        sql = Remembered().Replace(sql, m => m.Value.Replace("sqlite_sequence", "ever_given").Replace("seq ", "number "));
        sql = Guard().Replace(sql, m => $"DROP TRIGGER {m.Groups[1].Value} ON {Tables[m.Groups[2].Value]}");
        sql = Bytes().Replace(sql, @"'\x$1'::bytea");
        sql = Later().Replace(sql, "$1 = $1 + interval '1 second'");
        return Extract().Replace(sql, "('$1')::json #>> '{body,kind}'");
    }

    [GeneratedRegex("[^;]*sqlite_sequence[^;]*")]
    private static partial Regex Remembered();

    [GeneratedRegex(@"DROP TRIGGER ((\w+?)_\w+)")]
    private static partial Regex Guard();

    [GeneratedRegex("X'([0-9A-F]*)'")]
    private static partial Regex Bytes();

    [GeneratedRegex(@"(\w+) = \1 \+ 2048000000")]
    private static partial Regex Later();

    [GeneratedRegex(@"json_extract\('(.*)', '\$\.body\.kind'\)")]
    private static partial Regex Extract();
}
