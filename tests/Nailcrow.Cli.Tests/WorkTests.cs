namespace Nailcrow.Cli.Tests;

/// <summary>The smaller commands, each as somebody at work would type them.</summary>
[Takes(106)]
public sealed class WorkTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private async Task<string> ReportedAsync() =>
        (await use.Command.DoneAsync("ticket", "report", "FSC-0311", "Gauge screen is dark")).Split(':')[0];

    private async Task<(int Code, string Said)> RefusedAsync(params string[] arguments)
    {
        var ended = await use.Command.RunAsync(arguments);
        return (ended.Code, ended.Error.Trim());
    }

    [Fact]
    public async Task A_ticket_is_held_and_resumed_and_says_so()
    {
        var ticket = await ReportedAsync();

        await use.Command.DoneAsync("ticket", "hold", ticket, "High water until four.");
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldContain("on hold: High water until four.");
        (await RefusedAsync("ticket", "hold", ticket, "Again")).ShouldBe((1, "Already on hold: High water until four."));
        (await use.Command.DoneAsync("ticket", "resume", ticket)).ShouldContain("the hold is lifted.");
    }

    [Fact]
    public async Task A_call_for_help_is_answered_by_a_lead_one_way_or_the_other()
    {
        var ticket = await ReportedAsync();
        await use.Command.DoneAsync("ticket", "call", ticket, "Two chassis blink");

        (await RefusedAsync("ticket", "answer", ticket, "Hm", "--as", "lioth")).ShouldBe((2, "Say one of --go-ahead and --refuse."));
        (await RefusedAsync("ticket", "answer", ticket, "Go", "--go-ahead")).ShouldBe((4, "ilka may not do this; it takes the role lead."));
        (await use.Command.DoneAsync("ticket", "answer", ticket, "Read both stickers.", "--refuse", "--as", "lioth")).ShouldContain(
            "they may not go on."
        );
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldContain("lioth: refused, Read both stickers.");
    }

    [Fact]
    public async Task What_was_seen_earlier_is_written_down_later_and_marked_so()
    {
        var ticket = await ReportedAsync();

        await use.Command.DoneAsync(
            "ticket",
            "evidence",
            ticket,
            "medium error",
            "--kind",
            "log-lines",
            "--count",
            "41",
            "--at",
            DateTimeOffset.UtcNow.AddHours(-2).ToString("yyyy-MM-ddTHH:mmZ", System.Globalization.CultureInfo.InvariantCulture)
        );

        var line = (await use.Command.DoneAsync("ticket", "journal", ticket)).Split('\n').Single(l => l.Contains("evidence-seen"));
        line.ShouldContain("*"); // happened well before it was recorded
        line.ShouldContain("(41 times)");
    }

    [Theory]
    [InlineData("4TB", 2, "")]
    [InlineData("huge", 2, "'huge' is no size; write bytes, or a number with GB, TB, GiB or TiB: 8001563222016, 8TB, 7.3TiB.")]
    [InlineData("-5", 2, "'-5' is no size; write bytes, or a number with GB, TB, GiB or TiB: 8001563222016, 8TB, 7.3TiB.")]
    public async Task A_size_is_read_as_labels_and_screens_say_it(string size, int code, string sentence)
    {
        var ticket = await ReportedAsync();

        var ended = await use.Command.RunAsync(
            "part",
            "reserve",
            ticket,
            "T4NEW00001",
            "--model",
            "T",
            $"--size={size}",
            "--depot",
            "Stores",
            "--as",
            "sefa"
        );

        (ended.Code, ended.Error.Trim()).ShouldBe(sentence.Length == 0 ? (0, "") : (code, sentence));
    }

    [Fact]
    public async Task A_return_goes_to_one_place_and_only_with_a_drive_that_moved()
    {
        var ticket = await ReportedAsync();

        (await RefusedAsync("return", "open", ticket, "T4AAAA1")).ShouldBe(
            (2, "Say where it goes: one of --to-maker NAME and --to-depot NAME.")
        );
        (await RefusedAsync("return", "open", ticket, "T4AAAA1", "--to-depot", "Stores")).ShouldBe(
            (1, "T4AAAA1 has not moved on this ticket; with an engineer: nothing.")
        );
        (await RefusedAsync("return", "arrive", ticket, "T4AAAA1", "--in-box", "T4AAAA1", "--as", "sefa")).ShouldBe(
            (1, "No return for T4AAAA1 is open on this ticket; open: none.")
        );
        (await use.Command.DoneAsync("return", "show", ticket)).Trim().ShouldBe("No drive has moved.");
    }

    [Fact]
    public async Task A_rebuild_read_by_people_is_told_as_a_range_or_as_too_early()
    {
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("rebuild", "read", ticket, "--percent", "12.5");

        (await use.Command.DoneAsync("rebuild", "show", ticket)).ShouldContain("too-early. 12.5 % of rebuilding; too early to tell.");
        (await RefusedAsync("rebuild", "read", ticket, "--percent", "100.5")).ShouldBe(
            (1, "100.5 % is not a reading; a screen shows 0 to 100. If it shows none, leave the percentage out.")
        );
        (await RefusedAsync("rebuild", "watch", ticket, "--every", "0.2")).ShouldBe((2, "--every is 0.2; accepted: 1 to 600 seconds."));

        await use.Command.DoneAsync("rebuild", "read", ticket, "--progress", "failed");
        var watched = await use.Command.RunAsync("rebuild", "watch", ticket);
        (watched.Code, watched.Error.Contains("Pull nothing; call the lead.")).ShouldBe((1, true));
    }

    [Fact]
    public async Task The_machine_is_not_asked_where_nobody_reaches_it()
    {
        var ticket = await ReportedAsync();

        (await RefusedAsync("snapshot", "take", ticket)).ShouldBe(
            (3, "FSC-0311 has no management address; type in what its screen shows.")
        );
        (await RefusedAsync("snapshot", "difference", ticket)).ShouldBe((1, $"{ticket} has no snapshot yet."));
        (await RefusedAsync("bays", ticket)).ShouldBe(
            (
                1,
                $"Nothing is known of the bays yet. 'nailcrow snapshot take {ticket}' asks the machine, 'snapshot write' takes what you see."
            )
        );
        (await use.Command.DoneAsync("light", "on", ticket, "--by-hand")).ShouldContain("the light was switched on by hand.");
    }

    [Fact]
    public async Task One_machine_is_told_with_what_one_should_know_before_opening_it()
    {
        var told = await use.Command.DoneAsync("appliance", "show", "FSC-0203");

        foreach (
            var line in new[]
            {
                "Halmet Seed Vault",
                "array      catalogue: raid6 of 8, 12 TB (10.91 TiB) of each",
                "swap       hot; 8 s between pull and insert; the rebuild starts by-itself",
                "quirk      Shows no percentage while it rebuilds.",
            }
        )
            told.ShouldContain(line);
        (await use.Command.DoneAsync("appliance", "list")).ShouldContain("by hand only");
    }

    [Fact]
    public async Task A_wrong_password_is_said_as_such()
    {
        (await RefusedAsync("sign-in", "no-such-person")).ShouldBe((4, "Name and password do not go together."));
    }

    [Fact]
    public async Task Whoever_signs_out_is_out()
    {
        await use.Command.DoneAsync("sign-in", "tamsel");
        (await use.Command.DoneAsync("who", "--as", "tamsel")).ShouldContain("tamsel (tamsel): engineer");

        await use.Command.DoneAsync("sign-out", "--as", "tamsel");

        (await RefusedAsync("who", "--as", "tamsel")).ShouldBe((4, "tamsel is not signed in here; 'nailcrow sign-in tamsel' does that."));
    }

    [Fact]
    public async Task Several_drives_are_proposed_the_worst_first_and_chosen_in_one_line()
    {
        var unseen = (await use.Command.DoneAsync("ticket", "report", "FSC-0402", "Amber lamp")).Split(':')[0]; // nobody looks at this one
        (await RefusedAsync("ticket", "drives", unseen, "2")).ShouldBe((1, "Nothing is known of the bays yet; take a snapshot first."));
        var ticket = (await use.Command.DoneAsync("ticket", "report", "FSC-0203", "Amber lamp", "--bay", "6")).Split(':')[0];
        await use.Command.DoneAsync(
            "snapshot",
            "write",
            ticket,
            "--array",
            "catalogue=degraded",
            "--bay",
            "5=GAUGE00001,member,worn,catalogue",
            "--bay",
            "6=GAUGE00002,dropped,faulted,catalogue"
        );

        var shown = await use.Command.DoneAsync("ticket", "drives", ticket);
        shown.IndexOf("GAUGE00002", StringComparison.Ordinal).ShouldBeLessThan(shown.IndexOf("GAUGE00001", StringComparison.Ordinal));
        (await use.Command.DoneAsync("ticket", "drives", ticket, "--worst-first")).ShouldContain(
            "2 drives are chosen: bay 6 GAUGE00002, bay 5 GAUGE00001."
        );
        (await RefusedAsync("ticket", "drives", ticket, "9")).ShouldBe((1, "Bay '9' holds no drive with a serial in the last snapshot."));
    }

    [Fact]
    public async Task The_service_report_can_be_read_and_printed()
    {
        var ticket = await ReportedAsync();
        var path = Path.Combine(Directory.CreateTempSubdirectory("nailcrow-report-").FullName, "report.pdf");

        (await use.Command.DoneAsync("ticket", "service-report", ticket)).ShouldContain("Gauge screen is dark.");
        await use.Command.DoneAsync("ticket", "service-report", ticket, "--into", path);
        new FileInfo(path).Length.ShouldBeGreaterThan(10_000);
        var before = await File.ReadAllBytesAsync(path, TestContext.Current.CancellationToken);
        (await RefusedAsync("ticket", "service-report", "T-999999", "--into", path)).Code.ShouldBe(1);
        (await File.ReadAllBytesAsync(path, TestContext.Current.CancellationToken)).ShouldBe(before); // what was refused spoils no file
    }
}
