using System.Text.Json;

namespace Nailcrow.Cli.Tests;

/// <summary>A run at the keyboard, off the straight path.</summary>
[Takes(328)]
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
            $"CDR12TNEW{ticket[2..]}", // each part is set aside once
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
    public async Task What_was_typed_before_a_step_was_shown_is_no_answer_to_it()
    {
        var ticket = await StartedAsync();

        var screen = await use.Command.AtTerminalAsync(
            [("Enter when done", "\nyes\n"), ("What was typed before this was shown is not taken.", ""), (" > ", "q\n")],
            "run",
            "follow",
            ticket
        );

        screen.ShouldContain("if there is a backup"); // the second step was shown, and asks still
        (await use.Command.DoneAsync("ticket", "journal", ticket)).Split("step-").Length.ShouldBe(2, screen);
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
    public async Task A_run_is_left_for_another_sheet_with_its_reason_and_taken_up_again()
    {
        const string Good = "A drive that was dropped and is good";
        var ticket = await StartedAsync();
        await use.Command.DoneAsync("run", "answer", ticket);
        (await use.Command.RunAsync("run", "start", ticket, "--procedure", "dropped-but-good")).Error.ShouldContain(
            "Say in a sentence why"
        );

        await FollowAsync(ticket, "o", await NumberAsync(ticket, Good), "Dust in its plug", "q");
        (await use.Command.DoneAsync("run", "sheet", ticket)).ShouldContain(Good);
        await FollowAsync(ticket, "o", await NumberAsync(ticket, "(where it was left)"), "It has errors after all", "q");

        (await use.Command.DoneAsync("run", "sheet", ticket)).ShouldContain("Hot swap in a front-loading appliance");
        var told = await use.Command.DoneAsync("ticket", "journal", ticket, "--json");
        told.ShouldContain("Dust in its plug");
        told.ShouldContain("It has errors after all");
    }

    /// <summary>The number under which a sheet is offered.</summary>
    private async Task<string> NumberAsync(string ticket, string title) =>
        (await FollowAsync(ticket, "o", "", "q")).Output.Split('\n').First(l => l.Contains(title)).Trim().Split(' ')[0];

    [Fact]
    public async Task A_wrong_drive_goes_straight_back_and_its_bay_is_asked_for()
    {
        var ticket = await StartedAsync();
        while (await AtAsync(ticket) is var step and not "serial-out")
            await AnswerAsync(ticket, step);

        var compared = await FollowAsync(ticket, "CDR12T0003", "q");
        compared.Output.ShouldContain("Wrong drive. Push it straight back into the bay it came from.");
        var back = await FollowAsync(ticket, "bay 3", "q");

        back.Output.ShouldContain("It went back into bay 3.");
        (await use.Command.DoneAsync("ticket", "journal", ticket, "--json")).ShouldContain("CDR12T0003");
        (await AtAsync(ticket)).ShouldNotBe("put-back");
    }

    private async Task<string> AtAsync(string ticket) =>
        JsonDocument
            .Parse(await use.Command.DoneAsync("run", "step", ticket, "--json"))
            .RootElement.GetProperty("run")
            .GetProperty("current")
            .GetProperty("id")
            .GetString()!; // a step has an id

    /// <summary>What a careful engineer says there; a gate that asks for a look gets one.</summary>
    private async Task AnswerAsync(string ticket, string step)
    {
        if (step is "snapshot-before" or "not-rebuilding")
            await use.SeesAsync(ticket);
        string[] said = step switch
        {
            "chassis-serial" => ["OSTR8-31944"],
            "backup-detail" => ["Nightly, as the porter says"],
            _ => JsonDocument
                .Parse(await use.Command.DoneAsync("run", "step", ticket, "--json"))
                .RootElement.GetProperty("run")
                .GetProperty("current")
                .GetProperty("answers")
                .EnumerateArray()
                .Any(a => a.GetProperty("answer").GetString() == "yes")
                ? ["yes"]
                : [],
        };
        await use.Command.DoneAsync(["run", "answer", ticket, .. said]);
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
