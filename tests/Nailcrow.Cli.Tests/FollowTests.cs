using System.Text.Json;

namespace Nailcrow.Cli.Tests;

/// <summary>A run at the keyboard, off the straight path.</summary>
public sealed class FollowTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private async Task<string> StartedAsync()
    {
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "take", ticket);
        string[] part =
        [
            "part",
            "reserve",
            ticket,
            "CDR12TNEW01",
            "--model",
            "C12T",
            "--size",
            "12.1TB",
            "--depot",
            "Stores",
            "--as",
            "sefa",
        ];
        await use.Command.DoneAsync(part);
        await use.Command.DoneAsync("part", "issue", ticket, "--as", "sefa");
        await use.Command.DoneAsync("ticket", "arrive", ticket);
        await use.Command.DoneAsync("run", "start", ticket);
        return ticket;
    }

    private Task<Running.RunningCommand.Ended> FollowAsync(string ticket, params string[] typed) =>
        use.Command.RunWithInputAsync(string.Join('\n', typed) + "\n", "run", "follow", ticket);

    [Fact]
    public async Task What_the_screen_shows_is_typed_in_the_middle_of_the_run_and_a_slip_of_the_finger_keeps_nothing()
    {
        var ticket = await StartedAsync();

        var ended = await FollowAsync(
            ticket,
            "t",
            "99=X,member",
            "",
            "t",
            "5=CDR12T0005,dropped,faulted,catalogue",
            "catalogue=degraded",
            "",
            "q"
        );

        ended.Code.ShouldBe(0, ended.All);
        ended.Output.ShouldContain("There is no bay '99'");
        ended.Output.ShouldContain("Nothing was kept.");
        (await use.Command.DoneAsync("ticket", "journal", ticket)).Split("snapshot-taken").Length.ShouldBe(3); // the first one, and this
    }

    [Fact]
    public async Task Something_else_that_happened_is_followed_first_and_the_run_goes_on_after_it()
    {
        var ticket = await StartedAsync();

        var listed = await FollowAsync(ticket, "o", "", "q");
        var begun = await FollowAsync(ticket, "o", "1", "q");

        listed.Output.ShouldContain("      1  ");
        begun.Output.ShouldContain("goes on after this.");
    }

    [Fact]
    public async Task A_lead_who_answered_is_read_where_the_engineer_stands()
    {
        var ticket = await StartedAsync();
        await FollowAsync(ticket, "c", "Two chassis blink", "q");
        (await FollowAsync(ticket, "q")).Output.ShouldContain("a lead was called: Two chassis blink (no answer yet)");

        await use.Command.DoneAsync("ticket", "answer", ticket, "It is the lower one; read its sticker.", "--go-ahead", "--as", "lioth");

        (await FollowAsync(ticket, "q")).Output.ShouldContain(
            "lioth, asked 'Two chassis blink': go on. It is the lower one; read its sticker."
        );
    }

    [Fact]
    public async Task An_input_that_ends_leaves_the_run_where_it_stands_and_says_so()
    {
        var ticket = await StartedAsync();

        var ended = await use.Command.RunWithInputAsync("", "run", "follow", ticket);

        (ended.Code, ended.Error).ShouldSatisfyAllConditions(
            e => e.Code.ShouldBe(2),
            e => e.Error.ShouldContain("The input ended before the command was through. What was answered is kept.")
        );
    }

    [Fact]
    public async Task A_program_follows_it_too_and_reads_json_at_every_step()
    {
        var ticket = await StartedAsync();

        var ended = await use.Command.RunWithInputAsync("nonsense\nq\n", "run", "follow", ticket, "--json");

        ended.Code.ShouldBe(0, ended.All);
        var read = ended.Output.Replace("}\n{", "}\0{").Split('\0').Select(json => JsonDocument.Parse(json).RootElement).ToList();
        read.Count.ShouldBe(2); // the step, and the same one after what was no answer
        read[0].GetProperty("run").GetProperty("current").GetProperty("id").GetString().ShouldNotBeNullOrEmpty();
        JsonDocument.Parse(ended.Error).RootElement.GetProperty("error").GetString().ShouldNotBeNullOrEmpty();
    }
}
