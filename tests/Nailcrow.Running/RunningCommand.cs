using System.Diagnostics;
using System.Text;
using System.Text.RegularExpressions;

namespace Nailcrow.Running;

/// <summary>The real <c>nailcrow</c> command, with sessions of its own.</summary>
public sealed class RunningCommand : IDisposable
{
    private readonly string _home = Directory.CreateTempSubdirectory("nailcrow-cli-").FullName;
    private readonly Uri _service;

    public RunningCommand(Uri service) => _service = service;

    public sealed record Ended(int Code, string Output, string Error)
    {
        public string All => Output + Error;
    }

    /// <summary>What it reads from its environment.</summary>
    public IReadOnlyDictionary<string, string> Surroundings =>
        new Dictionary<string, string>
        {
            ["NAILCROW_HOME"] = _home,
            ["NAILCROW_SERVICE"] = _service.ToString(),
            ["NAILCROW_PASSWORD"] = RunningService.Password,
            ["NO_COLOR"] = "1",
            ["NAILCROW_PATIENCE"] = "300", // a test's machine may have a tenth of a processor; what is told is tested, not how fast
        };

    public Task<Ended> RunAsync(params string[] arguments) => RunWithInputAsync("", arguments);

    /// <summary>With more, or other things, in its environment.</summary>
    public Task<Ended> RunWithAsync(Dictionary<string, string> surroundings, params string[] arguments) =>
        RunWithInputAsync("", arguments, surroundings);

    public Task<Ended> RunWithInputAsync(string input, params string[] arguments) => RunWithInputAsync(input, arguments, []);

    private Process Begin(string[] arguments, Dictionary<string, string> more)
    {
        var start = new ProcessStartInfo(Built.Command[0], [.. Built.Command.Skip(1), .. arguments])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            RedirectStandardInput = true,
        };
        foreach (var (name, value) in (IEnumerable<KeyValuePair<string, string>>)[.. Built.LivesShort, .. Surroundings, .. more])
            start.Environment[name] = value;
        return Process.Start(start) ?? throw new InvalidOperationException($"{Built.Command[0]} did not start.");
    }

    private async Task<Ended> RunWithInputAsync(string input, string[] arguments, Dictionary<string, string> more)
    {
        using var process = Begin(arguments, more);
        await process.StandardInput.WriteAsync(input);
        process.StandardInput.Close();
        var (output, error) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        return new(process.ExitCode, await output, await error);
    }

    /// <summary>A command that shows something and asks something about it.</summary>
    /// <param name="shown">What it shows first.</param>
    /// <param name="answer">What is typed then, as a line.</param>
    public async Task<Ended> RunAnsweredAsync(Regex shown, Func<Match, string> answer, params string[] arguments)
    {
        using var process = Begin(arguments, []);
        var (error, output) = (process.StandardError.ReadToEndAsync(), new StringBuilder());
        while (await process.StandardOutput.ReadLineAsync() is { } line)
        {
            output.AppendLine(line);
            if (shown.Match(line) is { Success: true } match)
                await process.StandardInput.WriteLineAsync(answer(match));
        }
        await process.WaitForExitAsync();
        return new(process.ExitCode, output.ToString(), await error);
    }

    /// <summary>A command at a terminal of its own, where keys may be pressed before anything is asked.</summary>
    /// <param name="turns">What it shows, and what is typed as soon as it does; each is looked for behind the one before.</param>
    /// <returns>Everything that stood on the screen.</returns>
    public async Task<string> AtTerminalAsync((string Shows, string Typed)[] turns, params string[] arguments)
    {
        string[] words = [.. Built.Command, .. arguments];
        var start = new ProcessStartInfo("script", ["-qec", string.Join(' ', words.Select(w => $"'{w}'")), "/dev/null"])
        {
            RedirectStandardOutput = true,
            RedirectStandardInput = true,
        };
        foreach (
            var (name, value) in (IEnumerable<KeyValuePair<string, string>>)[.. Built.LivesShort, .. Surroundings, new("TERM", "xterm")]
        )
            start.Environment[name] = value;
        using var process = Process.Start(start) ?? throw new InvalidOperationException("script did not start.");
        var (screen, from, turn) = (new StringBuilder(), 0, 0);
        var some = new char[4096];
        while (await ReadAsync() is var read and > 0)
        {
            screen.Append(some, 0, read);
            while (
                turn < turns.Length
                && screen.ToString(from, screen.Length - from).IndexOf(turns[turn].Shows, StringComparison.Ordinal) is var at and >= 0
            )
            {
                from += at + turns[turn].Shows.Length;
                await process.StandardInput.WriteAsync(turns[turn++].Typed);
                await process.StandardInput.FlushAsync();
            }
        }
        await process.WaitForExitAsync();
        return screen.ToString();

        async Task<int> ReadAsync()
        {
            try
            {
                return await process.StandardOutput.ReadAsync(some, 0, some.Length).WaitAsync(TimeSpan.FromMinutes(4));
            }
            catch (TimeoutException)
            {
                process.Kill(entireProcessTree: true);
                throw new TimeoutException($"It waits, and what comes next was not shown: {screen}");
            }
        }
    }

    /// <summary>A command that has to be done; what it said.</summary>
    public async Task<string> DoneAsync(params string[] arguments)
    {
        var ended = await RunAsync(arguments);
        return ended.Code == 0
            ? ended.Output
            : throw new InvalidOperationException($"nailcrow {string.Join(' ', arguments)} ended with {ended.Code}: {ended.All}");
    }

    public void Dispose() => Directory.Delete(_home, recursive: true);
}
