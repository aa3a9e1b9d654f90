using System.Diagnostics;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>What a person sees who sits before a terminal of 80 columns: <c>script</c> of util-linux gives the command one.</summary>
public sealed class NarrowTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    [Fact]
    public async Task In_a_terminal_of_80_columns_no_word_and_no_id_is_broken_in_two()
    {
        Assert.SkipUnless(File.Exists("/usr/bin/script"), "There is no 'script' here to give the command a terminal.");
        var ticket = await use.TypedTicketAsync();

        foreach (var words in new[] { "tickets", "desk", $"ticket moves {ticket}", $"ticket journal {ticket}" })
        {
            var seen = await InATerminalAsync(words);
            var whole = (await use.Command.DoneAsync(words.Split(' ')))
                .Split([' ', '\n'], StringSplitOptions.RemoveEmptyEntries)
                .ToHashSet();

            seen.ShouldAllBe(line => line.Length <= 80, words);
            seen.SelectMany(l => l.Split(' ', StringSplitOptions.RemoveEmptyEntries))
                .Where(w => w.Length > 3 && !whole.Contains(w))
                .Where(w => whole.Any(other => other.Length > w.Length && (other.StartsWith(w) || other.EndsWith(w))))
                .ShouldBeEmpty(words);
        }
    }

    private async Task<IReadOnlyList<string>> InATerminalAsync(string words)
    {
        var command = $"stty cols 80 rows 24; {string.Join(' ', Built.Command)} {words}";
        var start = new ProcessStartInfo("/usr/bin/script", ["-qec", command, "/dev/null"])
        {
            RedirectStandardOutput = true,
            RedirectStandardInput = true,
        };
        foreach (var (name, value) in use.Command.Surroundings)
            start.Environment[name] = value;
        start.Environment["TERM"] = "xterm";
        using var process = Process.Start(start) ?? throw new InvalidOperationException("script did not start.");
        var said = await process.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        return [.. System.Text.RegularExpressions.Regex.Replace(said, "\e(\\[[0-9;?]*[a-zA-Z]|=)", "").Replace("\r", "").Split('\n')];
    }
}
