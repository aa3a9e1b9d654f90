using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using CsvHelper;
using Nailcrow.Appliances.Redfish;
using Nailcrow.Appliances.Redfish.Events;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Sheets;
using Nailcrow.Service.Intake.Syslog;
using Nailcrow.Store.Appliances.Csv;

namespace Nailcrow.Fuzz;

/// <summary>Something that takes what comes from outside.</summary>
/// <param name="Take">Throws only where it is wrong: what a caller is told of is caught in it.</param>
/// <param name="Seeds">Inputs that are right, to begin from.</param>
/// <param name="Words">What is put in between now and then.</param>
internal sealed record Target(string Name, Action<byte[]> Take, IReadOnlyList<byte[]> Seeds, IReadOnlyList<byte[]> Words);

internal static class Targets
{
    private static readonly DateTimeOffset Now = new(2026, 11, 25, 8, 0, 0, TimeSpan.Zero);

    public static readonly IReadOnlyList<Target> All =
    [
        Of("syslog", Syslog, Texts("syslog.txt")),
        Of("framing", Framing, [.. Texts("syslog.txt").Select(t => Bytes($"{t.Length} {Encoding.UTF8.GetString(t)}"))]),
        Of("patterns", Pattern, Texts("patterns.txt")),
        Of("csv", Csv, [Whole("sites.csv"), Whole("warranties.csv")]),
        Of("yaml", Yaml, [.. Directory.EnumerateFiles(Procedures, "*.yaml").Order().Select(File.ReadAllBytes)]),
        Of("conditions", Conditions, Texts("conditions.txt")),
        Of("events", Events, Texts("events.txt")),
        Of("machine", MadeUpMachine.Take, [Whole("machine.txt")]),
        Of("entries", MadeUpTicket.Take, Texts("entries.txt")),
    ];

    private static string Procedures => Path.Combine(AppContext.BaseDirectory, "procedures");

    private static void Syslog(byte[] input) => SyslogMessage.Parse(Encoding.UTF8.GetString(input), Now);

    private static void Framing(byte[] input)
    {
        try
        {
            Drain(input).GetAwaiter().GetResult();
        }
        catch (InvalidDataException)
        {
            // the sender is told goodbye
        }

        static async Task Drain(byte[] input)
        {
            var taken = 0;
            await foreach (var frame in SyslogFrames.ReadAsync(new MemoryStream(input), TimeSpan.FromMinutes(1), CancellationToken.None))
                taken += frame.Length;
            if (taken > input.Length)
                throw new InvalidOperationException("It made messages out of nothing.");
        }
    }

    /// <summary>A rule that somebody writes, held against a line; the first line of the input is the pattern, the rest what it is tried on.</summary>
    private static void Pattern(byte[] input)
    {
        var text = Encoding.UTF8.GetString(input);
        var cut = text.IndexOf('\n', StringComparison.Ordinal);
        var (pattern, line) = cut < 0 ? (text, "disk 7 failed") : (text[..cut], text[(cut + 1)..]);
        var rule = new IntakeRule("made-up", pattern);
        if (rule.Problem() is null)
            new RuleBook([rule]).On("kernel", line);
    }

    private static void Csv(byte[] input)
    {
        var file = Path.Combine("/dev/shm", $"nailcrow-fuzz-{Environment.ProcessId}.csv");
        File.WriteAllBytes(file, input);
        foreach (var kind in Enum.GetValues<ImportKind>())
            try
            {
                var (needed, possible) = ImportColumns.Of(kind);
                using var table = CsvTable.Open(file, needed, possible);
                while (table.Read())
                    Row(kind, table);
            }
            catch (Exception e) when (e is CsvProblem or CsvFormatException)
            {
                // a sentence, and the end of the file
            }
    }

    private static void Row(ImportKind kind, CsvTable row)
    {
        try
        {
            object? _ = kind switch
            {
                ImportKind.Customers => ImportRows.Customer(row),
                ImportKind.Sites => ImportRows.Site(row),
                ImportKind.Appliances => ImportRows.Appliance(row, Known),
                ImportKind.Drives => ImportRows.Drive(row, Known),
                ImportKind.Qualified => ImportRows.Qualified(row, Known),
                ImportKind.Warranties => ImportRows.Warranty(row, Now),
                _ => null,
            };
        }
        catch (CsvProblem)
        {
            // a sentence, and the next row
        }
    }

    private static readonly ImportKnown Known = new(
        new HashSet<string> { "Salt mill" },
        new Dictionary<string, Core.Appliances.Models.ApplianceModel>(),
        new HashSet<string> { "FSC-0107" },
        ["ilka"],
        new Dictionary<string, long>()
    );

    private static void Yaml(byte[] input) => ProcedureReader.Read("made-up.yaml", Encoding.UTF8.GetString(input), Shelf);

    private static readonly Shelf Shelf = Nailcrow.Procedures.Language.ProcedureFolder.ShelfOf(Procedures);

    private static void Conditions(byte[] input)
    {
        var text = Encoding.UTF8.GetString(input);
        var (condition, problem, at) = ConditionParser.Parse(text, Facts);
        if ((condition is null) == (problem is null) || at < 0 || at > text.Length + 1)
            throw new InvalidOperationException($"Neither a condition nor a problem with a place: '{problem}' at {at}.");
    }

    private static readonly Dictionary<string, FactType> Facts = ModelProperties.Facts.Concat(TicketFacts.Facts).ToDictionary();

    private static void Events(byte[] input)
    {
        try
        {
            RedfishEventReading.Of(input);
        }
        catch (JsonException)
        {
            // a sentence
        }
    }

    private static Target Of(string name, Action<byte[]> take, IReadOnlyList<byte[]> seeds) => new(name, take, seeds, Words(seeds));

    /// <summary>The words of its seeds: what a parser knows by name.</summary>
    private static IReadOnlyList<byte[]> Words(IReadOnlyList<byte[]> seeds) =>
        [
            .. seeds
                .SelectMany(s => Regex.Matches(Encoding.UTF8.GetString(s), @"[\w@.#/-]{2,40}|""\w+"":|[^\w\s]{1,3}").Select(m => m.Value))
                .Distinct()
                .Take(4_000)
                .Select(Bytes),
        ];

    private static byte[] Whole(string name) => File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Seeds", name));

    private static IReadOnlyList<byte[]> Texts(string name) =>
        [.. Encoding.UTF8.GetString(Whole(name)).Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(Bytes)];

    private static byte[] Bytes(string text) => Encoding.UTF8.GetBytes(text);
}
