using System.Net;
using System.Net.Sockets;
using System.Text;
using System.Text.Json;

namespace Nailcrow.Cli.Tests;

/// <summary>What comes out of the command, whatever went in: readable, harmless, and a sentence where something went wrong.</summary>
public sealed class DoorTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private const string Hostile = "lamp \u001b]52;c;cm0gLXJmIC8=\u0007 amber \u202Egnihton\u202C \u001b[2J\u009b31m";

    private async Task<string> ReportedAsync(string symptom) =>
        (await use.Command.DoneAsync("ticket", "report", "FSC-0311", symptom)).Split(':')[0];

    [Fact]
    public async Task What_a_stranger_wrote_is_shown_and_never_obeyed_by_a_terminal()
    {
        var ticket = await ReportedAsync(Hostile);
        await use.Command.DoneAsync("ticket", "note", ticket, Hostile);
        string[][] readers =
        [
            ["ticket", "show", ticket],
            ["ticket", "journal", ticket],
            ["ticket", "moves", ticket],
            ["tickets"],
            ["desk"],
            ["ticket", "show", ticket, "--json"],
            ["ticket", "journal", ticket, "--json"],
            ["ticket", "settle", ticket, Hostile, "how", "--as", "lioth"],
            ["ticket", Hostile],
            ["ticket", "show", Hostile],
            ["bays", Hostile],
        ];

        foreach (var reader in readers)
        {
            var said = (await use.Command.RunAsync(reader)).All;
            said.Where(c => char.IsControl(c) && c != '\n').ShouldBeEmpty($"{string.Join(' ', reader)}: {said}");
            said.IndexOfAny(['\u202E', '\u202C']).ShouldBe(-1, string.Join(' ', reader));
        }
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldContain("lamp ␛]52;c;cm0gLXJmIC8=␇ amber \\u202Egnihton");
    }

    [Theory]
    [InlineData("There is no 'nailcrow tickt'. Did you mean 'ticket'?", "tickt", "show")]
    [InlineData("There is no 'nailcrow ticket shwo'. Did you mean 'show'?", "ticket", "shwo", "T-1001")]
    [InlineData("'nailcrow run' is not whole; it goes on with one of: start, follow", "run")]
    [InlineData("'abc' is no whole number for --limit.", "tickets", "--limit", "abc")]
    [InlineData("'often' is no number for --percent.", "rebuild", "read", "T-1001", "--percent", "often")]
    [InlineData("'tomorrow' is no day (write one like 2026-03-31) for --due.", "return", "open", "T-1001", "X1", "--due", "tomorrow")]
    [InlineData("'--jsn' is not understood here. Did you mean '--json'?", "tickets", "--jsn")]
    [InlineData("It needs TICKET", "ticket", "show")]
    public async Task A_mistyped_command_is_told_the_nearest_one_in_words_of_the_job(string sentence, params string[] typed)
    {
        var ended = await use.Command.RunAsync(typed);

        ended.Code.ShouldBe(2);
        ended.Error.ShouldContain(sentence);
        ended.All.ShouldNotContain("System.");
        ended.All.Trim().Split('\n').Length.ShouldBeLessThan(4);
    }

    [Fact]
    public async Task For_scripts_every_error_is_json_whoever_it_comes_from()
    {
        string[][] wrong =
        [
            ["tickt", "--json"],
            ["ticket", "show", "--json"],
            ["ticket", "show", "T-999999", "--json"],
            ["tickets", "--limit", "abc", "--json"],
        ];

        foreach (var typed in wrong)
            JsonDocument
                .Parse((await use.Command.RunAsync(typed)).Error)
                .RootElement.GetProperty("error")
                .GetString()
                .ShouldNotBeNullOrWhiteSpace(string.Join(' ', typed));
    }

    [Fact]
    public async Task What_one_service_gave_is_never_sent_to_another()
    {
        using var other = new Listening("{}");

        var ended = await use.Command.RunAsync("tickets", "--service", other.Address);

        (ended.Code, ended.Error).ShouldSatisfyAllConditions(
            e => e.Code.ShouldBe(4),
            e =>
                e.Error.ShouldContain(
                    $"Nobody is signed in at {other.Address}/; 'nailcrow sign-in NAME --service {other.Address}/' does that."
                )
        );
        other.Heard.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("<html><body>Sign in to the hotel's network</body></html>")]
    [InlineData("")]
    [InlineData("{\"accessToken\": 17}")]
    public async Task What_stands_between_and_answers_something_else_is_a_sentence_and_not_a_stack_trace(string answer)
    {
        using var proxy = new Listening(answer);

        var ended = await use.Command.RunAsync("sign-in", "ilka", "--service", proxy.Address);

        ended.Code.ShouldBe(3, ended.Error);
        ended.Error.ShouldContain("does not answer as this Nailcrow does");
        ended.All.ShouldNotContain("   at ");
    }

    [Fact]
    public async Task A_service_that_says_nothing_is_waited_for_as_long_as_was_asked()
    {
        using var silent = new TcpListener(IPAddress.Loopback, 0);
        silent.Start();
        var service = $"http://127.0.0.1:{((IPEndPoint)silent.LocalEndpoint).Port}";

        var ended = await use.Command.RunWithAsync(new() { ["NAILCROW_PATIENCE"] = "1" }, "sign-in", "ilka", "--service", service);
        (ended.Code, ended.Error.ReplaceLineEndings(" ").Trim()).ShouldBe(
            (3, $"{service}/ did not answer in time. What you sent may have been kept; look before you send it again.")
        );

        var unclear = await use.Command.RunWithAsync(new() { ["NAILCROW_PATIENCE"] = "long" }, "who");
        (unclear.Code, unclear.Error.ReplaceLineEndings(" ").Trim()).ShouldBe(
            (2, "NAILCROW_PATIENCE is 'long'; accepted: 1 to 600, the seconds for which the service is waited for.")
        );
    }

    [Fact]
    public async Task Into_a_pipe_one_row_is_one_line_however_long_it_is()
    {
        var symptom = string.Join(' ', Enumerable.Repeat("the beeper sounds and the amber lamp blinks", 20));
        var ticket = await ReportedAsync(symptom);

        var rows = (await use.Command.DoneAsync("ticket", "journal", ticket)).TrimEnd().Split('\n');

        rows.Length.ShouldBe(2);
        rows[1].ShouldContain($"Reported: {symptom}");
        (await use.Command.DoneAsync("tickets")).TrimEnd().Split('\n').Skip(1).ShouldAllBe(r => r.StartsWith("T-"));
    }

    [Theory, InlineData("sites"), InlineData("appliances"), InlineData("drives"), InlineData("qualified")]
    public async Task What_was_exported_is_imported_again_as_it_is(string kind)
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory().FullName, $"{kind}.csv");
        await use.Command.DoneAsync("export", kind, file, "--as", "lioth");
        (await use.Command.DoneAsync("export", kind, "--as", "lioth")).ShouldBe(
            await File.ReadAllTextAsync(file, TestContext.Current.CancellationToken)
        );

        var again = await use.Command.RunAsync("import", kind, file, "--as", "lioth");

        again.Code.ShouldBe(0, again.All);
        again.Output.ShouldContain(" 0 bad");
        (await use.Command.RunAsync("export", kind, file, "--as", "lioth")).Code.ShouldBe(2); // never over one that is there
    }

    [Fact]
    public async Task A_list_that_is_refused_leaves_no_file_behind()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory().FullName, "hats.csv");

        (await use.Command.RunAsync("export", "hats", file, "--as", "lioth")).Code.ShouldNotBe(0);

        File.Exists(file).ShouldBeFalse();
    }

    [Fact]
    public async Task A_procedure_is_begun_anywhere_and_can_be_checked_at_once()
    {
        var folder = Path.Combine(Directory.CreateTempSubdirectory().FullName, "not", "there", "yet");

        var begun = await use.Command.DoneAsync("procedure", "new", "mine", "--title", "Mine", "--in", folder);
        var checkedNow = await use.Command.RunAsync("procedure", "check", Path.Combine(folder, "mine.yaml"));

        begun.ShouldContain("all its chapters are yours to write");
        checkedNow.Code.ShouldBeOneOf(0, 1); // read, and told what is still wrong with it
        checkedNow.All.ShouldNotContain("does not exist");
    }

    /// <summary>Something that answers every request with the same words, and remembers what it was sent.</summary>
    private sealed class Listening : IDisposable
    {
        private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
        private readonly List<string> _heard = [];

        public Listening(string answer)
        {
            _listener.Start();
            _ = AnswerAsync(answer);
        }

        public string Address => $"http://127.0.0.1:{((IPEndPoint)_listener.LocalEndpoint).Port}";

        public IReadOnlyList<string> Heard => _heard;

        private async Task AnswerAsync(string answer)
        {
            try
            {
                while (true)
                {
                    using var client = await _listener.AcceptTcpClientAsync();
                    var buffer = new byte[8192];
                    var read = await client.GetStream().ReadAsync(buffer);
                    _heard.Add(Encoding.UTF8.GetString(buffer, 0, read));
                    await client
                        .GetStream()
                        .WriteAsync(
                            Encoding.UTF8.GetBytes(
                                "HTTP/1.1 200 OK\r\nContent-Type: text/html\r\nContent-Length: "
                                    + $"{Encoding.UTF8.GetByteCount(answer)}\r\nConnection: close\r\n\r\n{answer}"
                            )
                        );
                }
            }
            catch (Exception e) when (e is SocketException or ObjectDisposedException or IOException)
            {
                // The test is over.
            }
        }

        public void Dispose() => _listener.Dispose();
    }
}
