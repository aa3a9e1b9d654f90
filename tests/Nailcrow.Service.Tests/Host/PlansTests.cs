using System.Net.Http.Headers;
using System.Text.Json;
using System.Text.RegularExpressions;
using Nailcrow.Client.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Host;

/// <summary>
/// What the database reads for an answer does not grow with what was kept: all doors are asked on a record of many years, and PostgreSQL tells of
/// each question which rows it went through (its auto_explain).
/// </summary>
[Takes(120)]
public sealed partial class PlansTests
{
    private const int OfEach = 8;

    // Of each row that was there, so many more that are over.
    private const int Copies = 3_000;

    // The longest page of a list, twice; what is more than that grows with something.
    private const int MostRows = 1_000;

    /// <summary>
    /// Tables that are added to for years, each with what tells a row that is over from one that somebody works on: those are as many as the
    /// firm has people.
    /// </summary>
    private static readonly Dictionary<string, string> Growing = new()
    {
        ["journal"] = "",
        ["ledger"] = "",
        ["security_line"] = "",
        ["ticket_line"] =
            "stage='Closed', ended=true, watched=false, next_who='', asset=asset || n, serial=serial || n, site=site || n, customer=customer || n",
        ["drive_place"] = "asset=asset || n",
        ["drive_life"] = "asset=asset || n, serial=serial || n",
        ["snapshot"] = "asset=asset || n",
        ["step_time"] = "procedure=procedure || n, at=at - n * interval '1 hour'",
        ["photo"] = "",
        ["intake"] =
            "outcome='Joined', pending=NULL, received_at=received_at - n * interval '1 hour', asset=asset || n, sender=sender || n",
        ["outbox"] = "state='Done', due_at=NULL, follow_at=NULL, written_at=written_at - n * interval '1 hour', partner=partner || n",
        ["part"] = "holder=holder || n, reserved_for=NULL, due_by=NULL, to_inspect=NULL, apart=NULL, model=model || n",
        ["drive"] = "asset=asset || n, depot=NULL, model=model || n",
        ["warranty"] = "serial=serial || n, serial_reversed=n || serial_reversed, model=NULL",
        ["reference_change"] = "at=at - n * interval '1 hour'",
    };

    // Doors whose whole purpose is to go over everything.
    private static readonly string[] OverEverything =
    [
        "/api/admin/verify",
        "/api/admin/rebuild-projections",
        "/api/admin/seal",
        "/api/export",
        "/api/stores/balance",
    ];

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Whatever_is_asked_of_a_record_of_many_years_is_answered_from_as_few_rows_as_of_one_of_a_day()
    {
        ServerOfItsOwn.OnceIsEnough();
        await using var postgres = await RunningPostgres.StartAsync(
            durable: false,
            "session_preload_libraries=auto_explain",
            "auto_explain.log_min_duration=0",
            "auto_explain.log_format=json",
            "auto_explain.log_analyze=on",
            "auto_explain.log_timing=off",
            "logging_collector=on",
            "log_destination=jsonlog",
            "log_filename=plans.log",
            "log_rotation_size=0"
        );
        var database = await postgres.NewDatabaseAsync();
        await using var service = await RunningService.StartPeopledAsync(
            assembly: Built.Service,
            further: ["--Nailcrow:Database", database, "--Nailcrow:PasswordRounds", "1000", "--Nailcrow:ReadsAhead", "false"]
        );
        await service.LetInAsync("everybody", Enum.GetValues<Role>());
        var ilka = await service.SignInAsync("ilka");
        await ilka.WriteAsync(
            (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Amber lamp", Bay: "5"), Ct)).Ticket,
            new NoteWritten("One"),
            Ct
        );
        await AskEverythingAsync(service, 1);
        foreach (var (table, over) in Growing)
            await MultiplyAsync(postgres, database, table, over);
        await postgres.AskAsync(database, "VACUUM ANALYZE");
        var kept = new List<string>();
        foreach (var table in Growing.Keys)
            kept.Add($"{table} {await postgres.AskAsync(database, $"SELECT count(*) >= {Copies} FROM {table}")}");
        kept.Where(k => k.EndsWith('f')).ShouldBeEmpty("What is empty cannot have grown.");
        var log = Path.Combine(postgres.DataFolder, "log", "plans.json");
        var before = File.ReadLines(log).Count();

        await AskEverythingAsync(service, 2);

        var asked = Plans(File.ReadLines(log).Skip(before)).ToList();
        asked.Count.ShouldBeGreaterThan(1_000);
        asked
            .SelectMany(a => Read(a.Plan).Where(r => r.Rows > MostRows).Select(r => $"{r.Rows} rows of {r.Table}, {r.How}: {a.Question}"))
            .DistinctBy(said => said[said.IndexOf(" rows", StringComparison.Ordinal)..])
            .ShouldBeEmpty();
    }

    private static async Task AskEverythingAsync(RunningService service, int seed)
    {
        using var http = service.Http();
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", (await service.SignInAsync("everybody")).Token);
        var calls = new MadeUpCalls(JsonDocument.Parse(await http.GetStringAsync("api/openapi.json", Ct)).RootElement, new Random(seed));
        foreach (var (method, path, says) in calls.All())
            if (!OverEverything.Any(path.StartsWith))
                for (var i = 0; i < OfEach; i++)
                {
                    using var ask = calls.Make(method, path, says);
                    using var answer = await http.SendAsync(ask, Ct);
                }
    }

    /// <summary>Each row so many times more, with keys of its own.</summary>
    private static async Task MultiplyAsync(RunningPostgres postgres, string database, string table, string over)
    {
        var said = over.Split(", ", StringSplitOptions.RemoveEmptyEntries).Select(o => o.Split('=', 2)).ToDictionary(o => o[0], o => o[1]);
        var columns = (
            await postgres.AskAsync(
                database,
                $"""
                SELECT a.attname || ' ' || format_type(a.atttypid, NULL) || ' ' || EXISTS (SELECT 1 FROM pg_index i
                  WHERE i.indrelid = a.attrelid AND i.indisunique AND a.attnum = ANY (i.indkey))
                FROM pg_attribute a WHERE a.attrelid = '{table}'::regclass AND a.attnum > 0 AND NOT a.attisdropped AND a.attgenerated = ''
                """
            )
        ).Split('\n').Select(line => (Name: line.Split(' ')[0], Kind: line.Split(' ')[1], IsKey: line.EndsWith("true", StringComparison.Ordinal))).ToList();
        var isEmpty = await postgres.AskAsync(database, $"SELECT count(*) FROM {table}") == "0";
        var values = columns.Select(c =>
            isEmpty
                ? MadeUp(c.Kind, said.GetValueOrDefault(c.Name))
                : said.GetValueOrDefault(c.Name) ?? (c.IsKey ? Another(c.Name, c.Kind) : $"\"{c.Name}\"")
        );
        await postgres.AskAsync(
            database,
            $"INSERT INTO {table} ({string.Join(", ", columns.Select(c => $"\"{c.Name}\""))}) SELECT {string.Join(", ", values)} "
                + $"FROM ({(isEmpty ? "SELECT 1" : $"SELECT * FROM {table} LIMIT 30")}) AS was, generate_series(1, {Copies}) n"
        );
    }

    private static string Another(string column, string kind) =>
        kind switch
        {
            "uuid" => "gen_random_uuid()",
            "text" => $"\"{column}\" || '-' || n",
            _ => $"\"{column}\" + n::bigint * 1000000",
        };

    /// <summary>Of a table that no call of ours has filled.</summary>
    /// <param name="over">What is said of the column, where that needs no row that was there.</param>
    private static string MadeUp(string kind, string? over) =>
        over is not null && !over.Contains(" n", StringComparison.Ordinal) && !over.StartsWith("n ", StringComparison.Ordinal)
            ? over
            : kind switch
            {
                "uuid" => "gen_random_uuid()",
                "text" or "jsonb" => "'X' || n",
                "boolean" => "false",
                "bytea" => "'\\x00'::bytea",
                "date" => "current_date - n",
                "timestamp" => "now() - n * interval '1 hour'",
                _ => "n",
            };

    private sealed record Asked(string Question, JsonElement Plan);

    private sealed record Went(string Table, string How, double Rows);

    private static IEnumerable<Asked> Plans(IEnumerable<string> log)
    {
        foreach (var line in log)
        {
            using var said = JsonDocument.Parse(line);
            if (
                said.RootElement.TryGetProperty("message", out var message)
                && message.GetString() is { } text
                && text.IndexOf("plan:\n", StringComparison.Ordinal) is var at and >= 0
            )
            {
                var told = JsonDocument.Parse(text[(at + "plan:\n".Length)..]).RootElement;
                yield return new(told.GetProperty("Query Text").GetString() ?? "", told.GetProperty("Plan"));
            }
        }
    }

    /// <summary>How many rows of a table that grows a plan went through, with those that it then had no use for.</summary>
    private static IEnumerable<Went> Read(JsonElement node)
    {
        if (
            node.TryGetProperty("Relation Name", out var relation)
            && Whole(relation.GetString() ?? "") is var table
            && Growing.ContainsKey(table)
        )
            yield return new(
                table,
                node.GetProperty("Node Type").GetString() ?? "",
                (Number(node, "Actual Rows") + Number(node, "Rows Removed by Filter") + Number(node, "Rows Removed by Index Recheck"))
                    * Number(node, "Actual Loops")
            );
        if (node.TryGetProperty("Plans", out var below))
            foreach (var found in below.EnumerateArray().SelectMany(Read))
                yield return found;
    }

    /// <summary>The table that a part is of.</summary>
    private static string Whole(string relation) => Part().Replace(relation, "$1");

    [GeneratedRegex(@"^(journal|intake)_(first|else|from_\d+|\d{4}_\d{2})$")]
    private static partial Regex Part();

    private static double Number(JsonElement node, string name) => node.TryGetProperty(name, out var number) ? number.GetDouble() : 0;
}
