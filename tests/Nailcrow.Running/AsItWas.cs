using System.Globalization;
using System.Text.Json.Nodes;

namespace Nailcrow.Running;

/// <summary>
/// Everything a service tells of its tickets, so that it can be held against what it tells after a restart: each ticket's
/// view, journal, report and paper, and the lists.
/// </summary>
internal sealed class AsItWas
{
    // What changes with the clock and not with the record.
    private static readonly string[] ByTheClock = ["deadlines", "rebuild", "exposure"];

    // A gate that waits says how much is left, and a look at the machine that was new is old a while later.
    private static readonly string[] RunByTheClock = ["unmet", "stop"];

    // Printing is most of what a comparison costs; what is printed for one of hundreds is printed for the others.
    private const int PapersAtMost = 40;

    private readonly Dictionary<long, (long Head, Dictionary<string, string> Said)> _tickets = [];
    private readonly Dictionary<long, string> _lines = [];

    /// <param name="listsAlone">
    /// Only what lists have a part in: a ticket's line and view. Journal, report and paper are told from the record.
    /// </param>
    public static async Task<AsItWas> OfAsync(HttpClient http, bool listsAlone = false)
    {
        var all = new AsItWas();
        for (long? before = long.MaxValue; before is { } at; )
        {
            var page = JsonNode.Parse(await http.GetStringAsync($"api/tickets?limit=200&before={at}"))!; // an answer of ours is JSON
            foreach (var line in page["tickets"]!.AsArray())
                all._lines[(long)line!["number"]!] = line.ToJsonString();
            before = (long?)page["next"];
        }
        var each = Math.Max(1, (all._lines.Count + PapersAtMost - 1) / PapersAtMost);
        foreach (var number in all._lines.Keys)
            all._tickets[number] = await OneAsync(http, number, listsAlone, printed: number % each == 0);
        return all;
    }

    /// <summary>What is told otherwise now, each as a sentence. A ticket that has grown meanwhile is held to the entries it had.</summary>
    public IEnumerable<string> Differences(AsItWas now)
    {
        foreach (var (number, then) in _tickets)
        {
            if (!now._tickets.TryGetValue(number, out var today))
            {
                yield return $"T-{number} is not there any more.";
                continue;
            }
            var grown = today.Head > then.Head;
            foreach (var (what, said) in then.Said.Where(s => today.Said.ContainsKey(s.Key)))
                if (what == "journal" ? !today.Said[what].StartsWith(said, StringComparison.Ordinal) : !grown && today.Said[what] != said)
                    yield return $"T-{number}: its {what} was\n{Apart(said, today.Said[what])}\nand is\n{Apart(today.Said[what], said)}";
            if (!grown && now._lines.GetValueOrDefault(number) != _lines[number])
                yield return $"T-{number}: the list said\n{_lines[number]}\nand says\n{now._lines.GetValueOrDefault(number)}";
        }
    }

    /// <summary>Where a text begins to be another one, with what stands around it.</summary>
    private static string Apart(string text, string other)
    {
        const int Around = 150;
        var same = text.Zip(other).TakeWhile(pair => pair.First == pair.Second).Count();
        var from = Math.Max(0, same - Around);
        return text[from..Math.Min(text.Length, same + Around)];
    }

    private static async Task<(long, Dictionary<string, string>)> OneAsync(HttpClient http, long number, bool listsAlone, bool printed)
    {
        var view = JsonNode.Parse(await http.GetStringAsync($"api/tickets/{number}"))!.AsObject();
        foreach (var changing in ByTheClock)
            view.Remove(changing);
        foreach (var waiting in RunByTheClock)
            view["run"]?.AsObject().Remove(waiting);
        var told = new Dictionary<string, string> { ["view"] = WithoutAges(view.ToJsonString()) };
        if (listsAlone)
            return ((long)view["head"]!, told);
        var report = await http.GetAsync($"api/tickets/{number}/report");
        told["journal"] = await JournalAsync(http, number);
        told["report"] = $"{(int)report.StatusCode} {WithoutTheClock(await report.Content.ReadAsStringAsync())}";
        if (!printed)
            return ((long)view["head"]!, told);
        var paper = await http.GetAsync($"api/tickets/{number}/sheet.pdf");
        var pages = Pages(await paper.Content.ReadAsByteArrayAsync());
        // A paper says when and where it was printed, and so is never the same twice; its pages are.
        told["paper"] = string.Create(CultureInfo.InvariantCulture, $"{(int)paper.StatusCode}, {pages} pages");
        return ((long)view["head"]!, told);
    }

    private static async Task<string> JournalAsync(HttpClient http, long number)
    {
        var entries = new List<string>();
        for (long? after = 0; after is { } at; )
        {
            var page = JsonNode.Parse(await http.GetStringAsync($"api/tickets/{number}/journal?after={at}"))!;
            entries.AddRange(page["entries"]!.AsArray().Select(e => e!.ToJsonString()));
            after = (long?)page["next"];
        }
        return string.Join('\n', entries);
    }

    /// <summary>A PDF's page tree (ISO 32000-1, 7.7.3) names each page by its type.</summary>
    private static int Pages(byte[] pdf) =>
        System.Text.RegularExpressions.Regex.Count(System.Text.Encoding.Latin1.GetString(pdf), @"/Type\s*/Page\b(?!s)");

    // How long ago something was grows by itself, and a restart takes time.
    private static string WithoutAges(string view) =>
        System.Text.RegularExpressions.Regex.Replace(view, "[0-9]+ [a-z0-9 ]*ago", "a while ago");

    private static string WithoutTheClock(string report) =>
        System.Text.RegularExpressions.Regex.Replace(report, "(still|so far)[^\"]*", "$1");
}
