using System.Net.Sockets;
using System.Text;

namespace Nailcrow.Cli.Tests;

/// <summary>What a dispatcher, stores and whoever looks after lists type.</summary>
public sealed class PlanningCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static string File(string content)
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("nailcrow-list-").FullName, "list.csv");
        System.IO.File.WriteAllText(path, content);
        return path;
    }

    private static int NextYear => DateTime.UtcNow.Year + 1;

    [Fact]
    public async Task A_list_is_checked_without_being_brought_in_and_then_brought_in()
    {
        var list = File("serial;model;size;depot\nCLI0000001;Cindral C12T;12000138625024;Main\nCLI0000002;Cindral C12T;12;Main\n");

        var checkedOnly = await use.Command.DoneAsync("import", "drives", list, "--as", "lioth");
        checkedOnly.ShouldContain("line 3: size is 12 bytes; no drive is under 1 GB. Write a unit: 8TB.");
        checkedOnly.ShouldContain("2 rows: 1 good, 1 bad, 0 brought in. Nothing was changed;");
        (await use.Command.RunAsync("import", "drives", list, "--write", "--all-or-nothing", "--as", "lioth")).Code.ShouldBe(1);
        (await use.Command.DoneAsync("import", "drives", list, "--write", "--as", "lioth")).ShouldContain("1 brought in.");

        (await use.Command.DoneAsync("drive", "find", "00001")).ShouldContain("depot Main");
        (await use.Command.RunAsync("import", "drives", list)).Code.ShouldBe(4); // an engineer does not bring lists in
        (await use.Command.DoneAsync("export", "drives", "--as", "lioth")).ShouldContain("CLI0000001,Cindral C12T,12000138625024");
    }

    [Fact]
    public async Task What_to_bring_is_told_with_reasons_and_an_exchange_is_reckoned_through()
    {
        await use.Command.DoneAsync(
            "import",
            "drives",
            File("serial,model,size,depot\nCLIBRING01,Hask H12-A,12000138625024,Main\n"),
            "--write",
            "--as",
            "lioth"
        );
        var ticket = await use.TypedTicketAsync();

        var told = await use.Command.DoneAsync("bring", ticket);

        told.ShouldContain("look twice");
        told.ShouldContain("Its tracks overlap (shingled): a rebuild onto it can take many times as long.");
        told.ShouldContain("Tools: Earthing strap");
        (await use.Command.RunAsync("bring", ticket, "--plan", "99=16TB"))
            .Error.Trim()
            .ShouldBe("How large the members are is not known; take a snapshot first.");
        (await use.Command.RunAsync("part", "reserve", ticket, "CLIBRING01", "--as", "sefa")).Error.ShouldContain(
            "say why this one is taken all the same"
        );
        (
            await use.Command.DoneAsync("part", "reserve", ticket, "CLIBRING01", "--because", "Two days to the next", "--as", "sefa")
        ).ShouldContain("CLIBRING01 is reserved.");
    }

    [Fact]
    public async Task The_desk_says_what_comes_first_and_a_planned_visit_is_on_the_engineers_day()
    {
        var ticket = await use.TypedTicketAsync();
        (await use.Command.DoneAsync("desk", "--as", "dorrik")).ShouldContain("nobody; could: ");
        await use.Command.DoneAsync("ticket", "assign", ticket, "ilka", "--as", "dorrik");

        (await use.Command.DoneAsync("ticket", "plan", ticket, "--from", $"{NextYear}-03-03T09:00Z", "--hours", "3")).ShouldContain(
            $"the visit is planned for {NextYear}-03-03 09:00 UTC."
        );

        var day = await use.Command.DoneAsync("day");
        day.ShouldContain("03-03 09:00–12:00 UTC");
        day.ShouldContain("calendar feed: http://127.0.0.1:");
        (await use.Command.RunAsync("ticket", "plan", ticket, "--from", $"{NextYear}-03-03T09:00Z", "--hours", "-1"))
            .Error.Trim()
            .ShouldBe("A visit ends after it begins.");
    }

    [Fact]
    public async Task A_line_is_tried_and_a_rule_made_of_what_nobody_understood()
    {
        using var udp = new UdpClient();
        await udp.SendAsync(
            Encoding.UTF8.GetBytes("<131>1 - tollardt5-19 storage - - - tray 2 sings"),
            "127.0.0.1",
            await use.Service.SyslogPortAsync(),
            Ct
        );
        const string pattern = @"tray (?<bay>\d+) sings";

        (await use.Command.DoneAsync("intake", "try", "<131>1 - tollardt5-19 storage - - - tray 2 sings", "--as", "dorrik")).ShouldContain(
            "No rule matches."
        );
        (
            await use.Command.DoneAsync(
                "intake",
                "try",
                "<131>1 - tollardt5-19 storage - - - tray 2 sings",
                "--pattern",
                pattern,
                "--as",
                "dorrik"
            )
        ).ShouldContain("0-tried: log-lines, bay 2");
        (await use.Command.DoneAsync("intake", "try", "hello", "--as", "dorrik")).ShouldContain(
            "Not read: A syslog line begins with its priority, as in '<134>'; 0 to 191."
        );
        (await use.Command.RunAsync("intake", "rule", "singing", "(", "--as", "dorrik")).Error.ShouldStartWith(
            "The pattern of rule 'singing' cannot be used:"
        );
        (await use.Command.DoneAsync("intake", "rule", "singing", pattern, "--kind", "alert", "--as", "dorrik")).ShouldContain(
            "1 messages are understood by it now."
        );
        (await use.Command.DoneAsync("intake", "rules")).ShouldContain("singing");
    }

    [Fact]
    public async Task Machines_snapshots_and_which_bay_is_which_are_told_and_what_is_not_known_says_so()
    {
        var ticket = await use.TypedTicketAsync();

        (await use.Command.DoneAsync("snapshot", "list", "FSC-0203")).ShouldContain($"{ticket}/");
        (await use.Command.DoneAsync("appliance", "map", "FSC-0203")).ShouldContain("Nobody has confirmed this map yet");
        (await use.Command.DoneAsync("drive", "show", "CDR12T0005")).ShouldContain("In bay 5 of FSC-0203: dropped, reads faulted.");
        (await use.Command.RunAsync("drive", "show", "CDR12T9999"))
            .Error.Trim()
            .ShouldBe("Nothing is known of a drive with the serial CDR12T9999.");
        (await use.Command.RunAsync("drive", "find", "05")).Error.Trim().ShouldBe("Give at least the last four characters of a serial.");
        (await use.Command.RunAsync("snapshot", "compare", "T-1/1", "T-1/2")).Code.ShouldBe(1);
    }
}
