using System.Text.Json;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

public sealed class CommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    [Fact]
    public async Task The_help_of_the_whole_walks_along_the_job()
    {
        var help = await use.Command.DoneAsync("--help");

        string[] stops =
        [
            "Say who you are.",
            "  sign-in ",
            "  tickets ",
            "  ticket report ",
            "  bays ",
            "  snapshot take ",
            "  part reserve ",
            "  run follow ",
            "  rebuild watch ",
            "  return open ",
            "  admin verify ",
            "Ends with 0 done, 1 refused, 2 usage, 3 not reachable, 4 not allowed.",
        ];
        stops
            .Select(s => help.IndexOf(s, StringComparison.Ordinal))
            .ShouldBe(stops.Select(s => help.IndexOf(s, StringComparison.Ordinal)).Where(i => i >= 0).Order());
    }

    [Theory]
    [InlineData(2, "ticket", "show", "next", "'next' is not a ticket number; write T-1042 or 1042.")]
    [InlineData(
        2,
        "tickets",
        "--stage",
        "gone",
        "'gone' is not a stage; accepted: received, planned, on-site, rebuilding, returning, closed, cancelled."
    )]
    [InlineData(1, "ticket", "show", "T-4242", "T-4242 does not exist.")]
    [InlineData(1, "appliance", "show", "FSC-9", "No appliance has the asset number 'FSC-9'.")]
    [InlineData(4, "admin", "verify", "--json", "Your roles do not allow this.")]
    [InlineData(4, "tickets", "--as", "nobody", "nobody is not signed in here; 'nailcrow sign-in nobody' does that.")]
    [InlineData(
        3,
        "sign-in",
        "ilka",
        "--service=http://127.0.0.1:9",
        "Nothing answers at http://127.0.0.1:9/. Is the service running there? --service says another place."
    )]
    public async Task Each_way_of_going_wrong_has_a_sentence_and_an_exit_code(
        int code,
        string noun,
        string verb,
        string what,
        string sentence
    )
    {
        var ended = await use.Command.RunAsync(noun, verb, what);

        (ended.Code, ended.All.Contains(sentence)).ShouldBe((code, true), ended.All);
    }

    [Fact]
    public async Task Everything_is_to_be_had_as_json_errors_too()
    {
        var ticket = await use.TypedTicketAsync();

        JsonDocument
            .Parse(await use.Command.DoneAsync("tickets", "--json"))
            .RootElement.GetProperty("tickets")
            .GetArrayLength()
            .ShouldBeGreaterThan(0);
        JsonDocument
            .Parse(await use.Command.DoneAsync("ticket", "note", ticket, "Seen", "--json"))
            .RootElement.GetProperty("seq")
            .GetInt64()
            .ShouldBeGreaterThan(1);
        JsonDocument
            .Parse(await use.Command.DoneAsync("bays", ticket, "--json"))
            .RootElement.GetProperty("snapshot")
            .GetProperty("bays")
            .GetArrayLength()
            .ShouldBe(8);
        JsonDocument
            .Parse((await use.Command.RunAsync("ticket", "close", ticket, "--json")).Error)
            .RootElement.GetProperty("error")
            .GetString()
            .ShouldStartWith("Not yet:");
    }

    [Fact]
    public async Task The_bays_are_drawn_as_one_stands_before_them()
    {
        var ticket = await use.TypedTicketAsync();

        var drawn = await use.Command.DoneAsync("bays", ticket);

        drawn.ShouldContain(
            """
              ├─────────────────┼─────────────────┼─────────────────┼─────────────────┤
              │ 5              .│ 6              -│ 7              -│ 8              -│
              │  faulted dropped│  member         │  member         │  member         │
              │  CDR12T0005     │  CDR12T0006     │  CDR12T0007     │  CDR12T0008     │
              └─────────────────┴─────────────────┴─────────────────┴─────────────────┘
            """
        );
        drawn.ShouldContain("catalogue: raid6, degraded, 7 of 8 members, margin 1");
    }

    [Theory]
    [InlineData("--bay", "9=AAAA1", "There is no bay '9'; its bays are 1, 2, 3, 4, 5, 6, 7, 8.")]
    [InlineData("--bay", "5", "'5' names no bay; write --bay 7=SERIAL,member,good,vault or --bay 7=empty.")]
    [InlineData(
        "--bay",
        "5=AAAA1,boss",
        "'boss' is not a role; accepted: member, filling, spare, dropped, unclaimed, foreign, empty, not-known."
    )]
    [InlineData("--array", "attic=whole", "There is no array 'attic' here; accepted: catalogue.")]
    public async Task A_snapshot_typed_wrong_says_how_to_type_it(string option, string value, string sentence)
    {
        var ticket = await use.TypedTicketAsync();

        var ended = await use.Command.RunAsync("snapshot", "write", ticket, option, value);

        (ended.Code, ended.Error.Trim()).ShouldBe((2, sentence));
    }

    [Fact]
    public async Task A_run_is_followed_at_the_keyboard_and_left_and_taken_up_again()
    {
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "take", ticket);
        await use.Command.DoneAsync(
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
            "sefa"
        );
        await use.Command.DoneAsync("part", "issue", ticket, "--as", "sefa");
        await use.Command.DoneAsync("ticket", "arrive", ticket);
        await use.Command.DoneAsync("run", "start", ticket);

        var first = await use.Command.RunWithInputAsync("\ny\nNightly copy\nq\n", "run", "follow", ticket);
        var again = await use.Command.RunWithInputAsync("\n\nn\nc\nTwo chassis blink\n\nq\n", "run", "follow", ticket);

        first.Code.ShouldBe(0);
        first.Output.ShouldContain("Put on the earthing strap and clip it to the rack.");
        again.Output.ShouldContain("The machine is not as the ticket says.");
        again.Output.ShouldContain("Waiting for a lead's answer. Pull nothing meanwhile.");
        (await use.Command.DoneAsync("run", "sheet", ticket)).ShouldContain(
            "✓ read  Write down of what, how old, and who says so.  [Nightly copy]"
        );
    }

    [Fact]
    public async Task A_procedure_file_is_checked_without_a_service_and_each_problem_is_told_with_its_place()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory().FullName, "broken.yaml");
        await File.WriteAllTextAsync(
            file,
            "procedure: x\ntitle: X\ncomes-back: unchanged\napplies-to: always\nchapters:\n  - chapter: One\n    "
                + "steps:\n      - id: a\n        do: Pull.\n        then: nowhere\n",
            TestContext.Current.CancellationToken
        );

        var broken = await use.Command.RunAsync("procedure", "check", file, "--service", "http://127.0.0.1:9");
        var good = await use.Command.RunAsync("procedure", "check", Path.Combine(Built.Root, "procedures", "front-hot.yaml"));

        (broken.Code, broken.Output.Trim(), broken.Error.Trim()).ShouldBe(
            (1, $"{file}:8:9: Step 'a' leads to 'nowhere', which is no step here.", "1 of 1 cannot be published.")
        );
        good.Code.ShouldBe(0);
        good.Output.ShouldMatch(@"front-hot [0-9a-f]{12}, \d+ steps, \d+ situations: proved\.");
    }

    [Fact]
    public async Task The_shell_is_told_what_could_come_next()
    {
        (await use.Command.DoneAsync("[suggest:17]", "nailcrow rebuild ")).Split('\n').Select(l => l.Trim()).ShouldContain("watch");
        (await use.Command.DoneAsync("completion", "bash")).ShouldContain("complete -o default -F _nailcrow nailcrow");
        (await use.Command.RunAsync("completion", "csh")).Code.ShouldBe(2);
    }

    [Fact]
    public async Task Who_works_on_the_record_is_told_with_all_that_is_done_over_time()
    {
        var told = await use.Command.DoneAsync("admin", "nodes", "--as", "admin");

        // On the file there is one, and it does everything.
        told.Split('\n').Count(line => line.Contains("(this one)", StringComparison.Ordinal)).ShouldBe(1, told);
        told.ShouldContain("following rebuilds, joining alerts");
        (await use.Command.RunAsync("admin", "nodes", "--as", "ilka")).Code.ShouldBe(4);
    }

    [Fact]
    public async Task A_backup_never_overwrites_a_file()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory().FullName, "backup.db");
        await use.Command.DoneAsync("admin", "backup", file, "--as", "admin");

        var again = await use.Command.RunAsync("admin", "backup", file, "--as", "admin");

        (again.Code, again.Error.Trim()).ShouldBe((2, $"{file} exists already; a backup never overwrites. Name another file."));
    }
}
