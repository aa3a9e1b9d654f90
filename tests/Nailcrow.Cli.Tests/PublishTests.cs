using System.Text.RegularExpressions;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>A lead publishes a procedure from the terminal and answers for what no proof can know.</summary>
public sealed class PublishTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    [Fact]
    public async Task A_lead_reads_what_is_new_on_trust_and_publishes_with_yes_or_with_the_word_for_it()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-publish-").FullName;
        var file = Path.Combine(folder, "by-the-gate.yaml");
        await WriteAsync(file, "Look at the gate.");

        var no = await use.Command.RunWithInputAsync("no\n", "procedure", "publish", file, "--as", "lioth");
        no.Code.ShouldBe(1);
        no.Error.ShouldContain("by-the-gate was not published; 'yes' publishes it.");

        var yes = await use.Command.RunWithInputAsync("yes\n", "procedure", "publish", file, "--as", "lioth");
        yes.Code.ShouldBe(0, yes.Error);
        yes.Output.ShouldContain("Taken on trust, since no proof can know it: 1");
        yes.Output.ShouldContain("\"Look at bay {bay}.\"");
        yes.Output.ShouldMatch("by-the-gate [0-9a-f]{12} is published: 4 steps, \\d+ situations, proved\\.");

        // Nothing of it is new now, and a script names the list by its word.
        await WriteAsync(file, "Look at the gate twice.");
        var again = await use.Command.RunWithInputAsync("no\n", "procedure", "publish", file, "--as", "lioth");
        again.Output.ShouldContain("Nothing new is taken on trust; 1 thing is as published before.");
        var told = await use.Command.RunAsync("procedure", "check", file);
        var word = Regex.Match(told.Output, "\\(1; ([0-9a-f]{8})\\)").Groups[1].Value;
        (await use.Command.RunAsync("procedure", "publish", file, "--trusting", "00000000", "--as", "lioth")).Error.ShouldContain(
            $"send 'trusting' with {word}."
        );
        (await use.Command.RunAsync("procedure", "publish", file, "--trusting", word, "--as", "lioth")).Code.ShouldBe(0);

        (await use.Command.RunAsync("procedure", "publish", file, "--trusting", word, "--as", "ilka")).Code.ShouldBe(4);
        Directory.Delete(folder, recursive: true);
    }

    private static Task WriteAsync(string file, string says) =>
        File.WriteAllTextAsync(
            file,
            $$"""
            procedure: by-the-gate
            title: By the gate
            comes-back: unchanged
            by-name: yes
            applies-to: always
            not-so: stuck
            chapters:
              - chapter: One
                steps:
                  - id: gate
                    do: {{says}}
                  - id: bay
                    do: Look at bay {bay}.
                    moves: nothing
                  - id: seen
                    gate: It was looked at.
                    needs: seen-again
                    then: end
                  - id: stuck
                    call: Call.
                    with: [asset]
                    then: back

            """
        );
}
