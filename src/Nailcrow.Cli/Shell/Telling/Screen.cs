using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Spectre.Console;

namespace Nailcrow.Cli.Shell.Telling;

/// <summary>Where answers are written. Colour only where it is a terminal, and never the only sign.</summary>
internal sealed class Screen
{
    // A pipe has no width: one row is one line, however long.
    private const int PipeWidth = 1_000_000;

    private readonly TextWriter _output;
    private readonly TextWriter _error;
    private readonly bool _json;
    private readonly Lazy<IAnsiConsole> _console;

    private Screen(TextWriter output, TextWriter error, bool json)
    {
        (_output, _error, _json) = (output, error, json);
        _console = new(Open); // looking at the terminal takes time that --json need not spend
    }

    public static Screen To(TextWriter output, TextWriter error, bool json) => new(output, error, json);

    /// <summary>Nobody looks at it: another program reads it, and gets all of it.</summary>
    public bool IsPiped => Console.IsOutputRedirected;

    /// <summary>A text as it is, for a file or another program.</summary>
    public void Plain(string text) => _output.Write(text);

    /// <summary>A line with markup in square brackets; what comes from data goes through <see cref="Safe"/>.</summary>
    public void Line(string markup = "") => _console.Value.MarkupLine(markup);

    /// <summary>A line that only people need: what a program reads has it in its fields.</summary>
    public void Hint(string markup = "")
    {
        if (!_json)
            Line(markup);
    }

    /// <summary>A text from data: no markup, and nothing in it that a terminal would obey.</summary>
    public static string Safe(string? text) => Markup.Escape(Visible.Text(text ?? ""));

    public void Draw(Spectre.Console.Rendering.IRenderable drawing) => _console.Value.Write(drawing);

    public void Json<T>(T value, JsonTypeInfo<T> type)
    {
        using var memory = new MemoryStream();
        using (
            var writer = new Utf8JsonWriter(
                memory,
                new JsonWriterOptions { Indented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }
            )
        )
            JsonSerializer.Serialize(writer, value, type);
        _output.WriteLine(System.Text.Encoding.UTF8.GetString(memory.GetBuffer(), 0, (int)memory.Length));
    }

    public void Error(string sentence)
    {
        if (_json)
            _error.WriteLine($"{{\"error\":{JsonEncodedText(sentence)}}}");
        else
            _error.WriteLine(Visible.Lines(sentence));
    }

    /// <summary>How far something long is, on one line that is written over; only where somebody looks at it.</summary>
    public void Progress(Nailcrow.Client.Admin.VerifyNews news)
    {
        if (!Console.IsErrorRedirected && news is { What: { } what, Of: > 0 })
            Console.Error.Write($"\r{Visible.Text(what)}: {news.Done} of {news.Of} ({100 * news.Done / news.Of} %)   ");
    }

    public void ProgressEnds()
    {
        if (!Console.IsErrorRedirected)
            Console.Error.Write("\r" + new string(' ', 60) + "\r");
    }

    /// <summary>Asks at the terminal, or takes the next line of what was piped in; a program knows what it is asked.</summary>
    public string Ask(string question)
    {
        if (!_json)
            _error.Write(question);
        return Console.In.ReadLine()
            ?? throw new UsageProblem("The input ended before the command was through. What was answered is kept.");
    }

    /// <summary>
    /// Asks about what was shown only just now. What was typed at the terminal before it was shown, by a finger that pressed twice, is no
    /// answer to it; a program that pipes its answers in knows what it is asked.
    /// </summary>
    public string AskAnew(string question)
    {
        if (!Console.IsInputRedirected && Console.KeyAvailable)
        {
            while (Console.KeyAvailable)
                Console.ReadKey(intercept: true);
            Hint("      What was typed before this was shown is not taken.");
        }
        return Ask(question);
    }

    /// <summary>A table with a head; see <see cref="Rows"/> for where it does not fit.</summary>
    public void Table(IReadOnlyList<string> head, IEnumerable<string[]> rows)
    {
        foreach (var part in new Rows(head, [.. rows]).Within(_console.Value.Profile.Width))
            Draw(part);
    }

    /// <summary>What became of an entry, and what is next.</summary>
    public void Receipt(Receipt receipt, string what)
    {
        Line(
            $"{TicketNumber.Text(receipt.Ticket)}: {Safe(what)}{(receipt.Repeated ? " (kept before)" : "")} "
                + $"[dim]entry {receipt.Seq}, {Words.Of(receipt.Stage)}[/]"
        );
        if (receipt.Said is { } said)
            Line($"  {Safe(said)}");
        foreach (var raised in receipt.Raised)
            Line($"  [bold]! Discrepancy {Safe(raised.Id)}:[/] {Safe(raised.Sentence)}");
        Next(receipt.Next);
    }

    public void Next(NextAction next) => Line($"  [bold]Next[/] ({Safe(next.Who)}): {Safe(next.Say)}");

    private IAnsiConsole Open()
    {
        var isPiped = Console.IsOutputRedirected;
        return AnsiConsole.Create(
            new AnsiConsoleSettings
            {
                Out = new Terminal(_output, isPiped ? PipeWidth : null),
                Interactive = InteractionSupport.No,
                Ansi = isPiped ? AnsiSupport.No : AnsiSupport.Detect,
                ColorSystem = isPiped ? ColorSystemSupport.NoColors : ColorSystemSupport.Detect,
            }
        );
    }

    /// <summary>The terminal behind our own door, which Spectre would not recognise by itself.</summary>
    private sealed class Terminal(TextWriter writer, int? width) : IAnsiConsoleOutput
    {
        private const int UsualWidth = 80;

        public TextWriter Writer => writer;

        public bool IsTerminal => width is null;

        public int Width => width ?? (Console.WindowWidth is > 0 and var columns ? columns : UsualWidth);

        public int Height => 24;

        public void SetEncoding(System.Text.Encoding encoding) { }
    }

    private static string JsonEncodedText(string text) =>
        $"\"{System.Text.Json.JsonEncodedText.Encode(text, JavaScriptEncoder.UnsafeRelaxedJsonEscaping)}\"";
}
