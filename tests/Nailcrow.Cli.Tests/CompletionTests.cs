using System.Diagnostics;
using System.Text.RegularExpressions;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>What a shell offers when somebody presses Tab.</summary>
public sealed class CompletionTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    /// <summary>What Tab offers. Whoever waits for it is not made to: where the service is slow nothing is, and they press it again.</summary>
    private async Task<string[]> OfferedAsync(string line)
    {
        for (var presses = 1; ; presses++)
        {
            var offered = (await use.Command.DoneAsync($"[suggest:{line.Length}]", line)).Split(
                '\n',
                StringSplitOptions.RemoveEmptyEntries
            );
            if (offered.Length > 0 || presses == 5)
                return offered;
        }
    }

    [Fact]
    public async Task Tickets_machines_bays_people_and_serials_are_offered_where_they_are_asked_for()
    {
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync(
            "part",
            "reserve",
            ticket,
            "CDR12TTAB",
            "--model",
            "Cindral C12",
            "--size",
            "12000138625024",
            "--depot",
            "Stores",
            "--as",
            "sefa"
        );

        (await OfferedAsync("nailcrow ticket show ")).ShouldContain(ticket);
        (await OfferedAsync("nailcrow bays ")).ShouldContain("FSC-0107");
        (await OfferedAsync("nailcrow ticket report FSC-0107 lamp --bay ")).ShouldBe(
            Enumerable.Range(1, 12).Select(b => $"{b}"),
            ignoreOrder: true
        );
        (await OfferedAsync($"nailcrow ticket evidence {ticket} lamp --bay ")).ShouldContain("5");
        (await OfferedAsync($"nailcrow ticket assign {ticket} ")).ShouldContain("tamsel");
        (await OfferedAsync("nailcrow procedure withdraw ")).ShouldContain("carries-old-data");
        (await OfferedAsync($"nailcrow return send {ticket} ")).ShouldContain("CDR12TTAB");
    }

    [Theory]
    [InlineData("nailcrow ", "ticket")]
    [InlineData("nailcrow ticket ", "show")]
    [InlineData("nailcrow return ", "send")]
    [InlineData("nailcrow snapshot ", "write")]
    [InlineData("nailcrow rebuild read T-1 --progress ", "running")]
    public async Task Each_word_is_offered_once(string line, string one)
    {
        var offered = await OfferedAsync(line);

        offered.ShouldBeUnique();
        offered.ShouldContain(one);
        offered.ShouldAllBe(word => !Regex.IsMatch(word, "^(/.|-.)$"));
    }

    [Fact]
    public async Task Out_of_contact_the_words_of_the_command_are_still_offered_and_nothing_is_complained_about()
    {
        var line = "nailcrow ticket show --service http://127.0.0.1:9 ";

        var ended = await use.Command.RunAsync($"[suggest:{line.Length}]", line);

        (ended.Code, ended.Error).ShouldBe((0, ""));
        ended.All.ShouldContain("--json");
    }

    [Fact]
    public async Task The_script_of_a_shell_makes_it_offer_what_the_command_knows()
    {
        var script = $$"""
            nailcrow() { '{{string.Join("' '", Built.Command)}}' "$@"; }
            source <(nailcrow completion bash)
            COMP_WORDS=(nailcrow tick) COMP_CWORD=1 COMP_LINE='nailcrow tick' COMP_POINT=13
            _nailcrow
            echo "${COMPREPLY[@]}"
            """;
        using var shell = Process.Start(new ProcessStartInfo("bash", ["-c", script]) { RedirectStandardOutput = true })!;

        (await shell.StandardOutput.ReadToEndAsync(Ct)).Trim().ShouldBe("ticket tickets");

        (await use.Command.DoneAsync("completion", "zsh")).ShouldContain("compdef");
        (await use.Command.DoneAsync("completion", "fish")).ShouldContain("complete -f -c nailcrow");
        (await use.Command.RunAsync("completion", "tcsh")).Error.ShouldContain("bash");
    }
}
