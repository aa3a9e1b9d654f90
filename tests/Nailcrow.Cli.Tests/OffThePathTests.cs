using System.Net.Sockets;
using System.Text;
using System.Text.Json;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>What people type on the days that do not go by the book.</summary>
[Takes(180)]
public sealed class OffThePathTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_part_that_is_none_is_given_up_another_takes_its_place_and_it_goes_back_as_dead_on_arrival()
    {
        var ticket = await WithAPartAsync("CDR12TDEAD1");

        (await use.Command.RunAsync("part", "give-up", ticket, "CDR12TDEAD1")).Error.ShouldContain("--why");
        (await use.Command.RunAsync("part", "give-up", ticket, "CDR12TDEAD1", "--why", "ugly")).Error.ShouldContain(
            "accepted: dead-on-arrival, too-small, does-not-fit, not-taken, carries-old-data, not-here, not-needed, found-better."
        );
        (
            await use.Command.DoneAsync("part", "give-up", ticket, "CDR12TDEAD1", "--why", "dead-on-arrival", "--note", "It rattles.")
        ).ShouldContain("CDR12TDEAD1 is given up; stores reserves another.");
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldContain("Reserve another replacement: CDR12TDEAD1 was given up");

        await ReserveAsync(ticket, "CDR12TGOOD1");
        (await use.Command.DoneAsync("part", "issue", ticket, "--as", "sefa")).ShouldContain("CDR12TGOOD1 is with ilka.");
        (
            await use.Command.DoneAsync("return", "open", ticket, "CDR12TDEAD1", "--to-depot", "Main", "--why", "dead-on-arrival")
        ).ShouldContain("a return for CDR12TDEAD1 is open.");
        (await use.Command.DoneAsync("ticket", "journal", ticket)).ShouldContain("Gave up CDR12TDEAD1: dead on arrival. It rattles.");
    }

    [Fact]
    public async Task A_ticket_is_handed_over_to_somebody_there_is_with_all_that_was_in_their_hands()
    {
        var ticket = await WithAPartAsync("CDR12THAND1");

        (await use.Command.RunAsync("ticket", "hand-over", ticket, "nobody")).Error.Trim().ShouldStartWith("'nobody' is no engineer here");
        (await use.Command.DoneAsync("ticket", "hand-over", ticket, "tamsel", "--note", "Keys at the porter's.")).ShouldContain(
            "tamsel goes on, and has what ilka had."
        );

        (await use.Command.DoneAsync("return", "show", ticket)).ShouldContain("tamsel");
        (await use.Command.RunAsync("ticket", "hand-over", ticket, "ilka")).Error.ShouldContain("tamsel hands it over, or a dispatcher");
    }

    [Fact]
    public async Task A_customer_nobody_has_heard_of_comes_with_their_machine_and_what_is_learnt_of_them_is_written_down()
    {
        (
            await use.Command.DoneAsync([
                "appliance",
                "add",
                "FSC-CLI-9",
                "--serial",
                "CH-CLI-9",
                "--model",
                "brackmere-b12",
                "--location",
                "Hall",
                .. NewSite(),
            ])
        ).ShouldContain("FSC-CLI-9 is known now");
        var ticket = (await use.Command.DoneAsync("ticket", "report", "FSC-CLI-9", "It beeps")).Split(' ', ':')[0];
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldContain("ask        Ansa Hale, getting in: desk 12");
        (await use.Command.DoneAsync("customer", "list", "--find", "glass", "--as", "dorrik")).ShouldContain("Ferrow Glass");

        var dorrik = new[] { "--as", "dorrik" };
        (await use.Command.RunAsync(["customer", "change", "Ferrow Glass", .. dorrik])).Error.ShouldContain("Say what is so");
        (await use.Command.RunAsync(["customer", "change", "Ferrow Glass", "--without", "Orm", .. dorrik])).Error.ShouldContain(
            "'Orm' is nobody to ask at Ferrow Glass"
        );
        (await use.Command.RunAsync(["customer", "change", "Ferrow Glass", "--ask", "Orm", .. dorrik])).Error.ShouldContain(
            "'Orm' names nobody to ask; write NAME | ABOUT WHAT | HOW REACHED."
        );
        (await use.Command.RunAsync(["customer", "change", "Ferrow Glass", "--data", "burnt", .. dorrik])).Error.ShouldContain(
            "accepted: ask-each-time, may-leave, wiped-first, stays-with-them, destroyed-there."
        );
        (await use.Command.RunAsync("customer", "change", "Ferrow Glass", "--respond-hours", "4", "--as", "ilka")).Code.ShouldNotBe(0);

        var now = await use.Command.DoneAsync([
            "customer",
            "change",
            "Ferrow Glass",
            "--ask",
            "Orm Vey | signs | kiln 2",
            "--without",
            "Ansa Hale",
            "--data",
            "may-leave",
            .. dorrik,
        ]);
        now.ShouldContain("ask        Orm Vey, signs: kiln 2");
        now.ShouldNotContain("Ansa Hale");
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldContain("Drives with their data on them may leave.");
    }

    private static string[] NewSite() =>
        ["--site", "Kiln hall", "--customer", "Ferrow Glass", "--address", "2 Kiln Road", "--ask", "Ansa Hale | getting in | desk 12"];

    [Fact]
    public async Task The_desk_is_narrowed_and_paged_like_any_list()
    {
        await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "report", "FSC-0402", "It hums");

        var first = await use.Command.DoneAsync("desk", "--limit", "1", "--as", "dorrik");
        first.ShouldContain("more: --skip 1");
        (await use.Command.DoneAsync("desk", "--asset", "FSC-0402", "--as", "dorrik")).ShouldNotContain("FSC-0203");
        (await use.Command.DoneAsync("desk", "--find", "no such thing", "--as", "dorrik")).ShouldContain("No such ticket is open.");
        (await use.Command.RunAsync("desk", "--limit", "0", "--as", "dorrik"))
            .Error.Trim()
            .ShouldBe("A page has 1 to 200 tickets; 0 were asked for.");
    }

    [Fact]
    public async Task What_was_put_aside_is_listed_and_can_be_taken_back_or_made_a_ticket_after_all()
    {
        using var udp = new UdpClient();
        await udp.SendAsync(
            Encoding.UTF8.GetBytes("<131>1 - tollardt5-19 storage - - - shelf nine mutters"),
            "127.0.0.1",
            await use.Service.SyslogPortAsync(),
            Ct
        );
        var id = await UnderstoodByNobodyAsync("shelf nine mutters");

        (await use.Command.DoneAsync("intake", "settle", id)).ShouldContain($"'nailcrow intake take-back {id}' undoes it.");
        (await use.Command.DoneAsync("intake", "list", "--outcome", "settled")).ShouldContain("shelf nine mutters");
        (await use.Command.DoneAsync("intake", "take-back", id)).ShouldContain("It waits again to be understood.");
        (await use.Command.RunAsync("intake", "take-back", id))
            .Error.Trim()
            .ShouldBe("It is unmatched; only what was put aside is taken back.");

        await use.Command.DoneAsync("intake", "settle", id);
        (await use.Command.DoneAsync("intake", "settle", id, "--asset", "FSC-0402")).ShouldContain("that is where it belongs.");
    }

    private Task<string> UnderstoodByNobodyAsync(string text) =>
        Soon.ComesAsync<string>(
            async () =>
            {
                using var list = JsonDocument.Parse(await use.Command.DoneAsync("intake", "list", "--json"));
                foreach (var item in list.RootElement.GetProperty("items").EnumerateArray())
                    if (item.GetProperty("text").GetString()!.Contains(text, StringComparison.Ordinal)) // a message has a text
                        return item.GetProperty("id").GetString();
                return null;
            },
            Ct
        );

    private Task<string> ReserveAsync(string ticket, string serial) =>
        use.Command.DoneAsync(
            "part",
            "reserve",
            ticket,
            serial,
            "--model",
            "Cindral C12T",
            "--size",
            "12000138625024",
            "--depot",
            "Main",
            "--as",
            "sefa"
        );

    private async Task<string> WithAPartAsync(string serial)
    {
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "take", ticket);
        await ReserveAsync(ticket, serial);
        await use.Command.DoneAsync("part", "issue", ticket, "--as", "sefa");
        return ticket;
    }

    [Fact]
    public async Task What_was_recorded_by_mistake_is_put_right_and_the_journal_says_both()
    {
        var ticket = await WithAPartAsync("CDR12TRIGHT1");
        await use.Command.DoneAsync("ticket", "arrive", ticket);
        var journal = await use.Command.DoneAsync("ticket", "journal", ticket, "--json");
        var entries = JsonDocument.Parse(journal).RootElement.GetProperty("entries").EnumerateArray().ToList();
        string Nth(string kind) =>
            $"{entries.Last(e => e.GetProperty("body").GetProperty("kind").GetString() == kind).GetProperty("seq").GetInt64()}";

        var issued = Nth("part-issued");
        (await use.Command.DoneAsync("ticket", "correct", ticket, issued, "--as", "sefa")).ShouldContain("FIELD=VALUE --because REASON");
        (await use.Command.RunAsync("ticket", "correct", ticket, issued, "to=tamsel", "--as", "sefa")).Error.ShouldContain("--because");
        (
            await use.Command.RunAsync("ticket", "correct", ticket, issued, "whom=tamsel", "--because", "x", "--as", "sefa")
        ).Error.ShouldContain("accepted: serial, to.");
        (
            await use.Command.DoneAsync("ticket", "correct", ticket, issued, "to=tamsel", "--because", "To her.", "--as", "sefa")
        ).ShouldContain($"entry {issued} is put right.");
        (
            await use.Command.DoneAsync("ticket", "correct", ticket, Nth("arrived-on-site"), "--not-so", "--because", "Wrong door.")
        ).ShouldContain("is put right.");
        (await use.Command.RunAsync("ticket", "correct", ticket, "1", "--not-so", "--because", "x")).Error.ShouldContain(
            "A ticket begins with its report."
        );
        (await use.Command.RunAsync("ticket", "correct", ticket, "999", "--not-so", "--because", "x")).Error.ShouldContain(
            "has no entry 999"
        );

        (await use.Command.RunAsync("ticket", "correct", ticket, issued, "to=", "--because", "x", "--as", "sefa")).Error.ShouldContain(
            "to cannot be that"
        );
        (
            await use.Command.DoneAsync(
                "ticket",
                "correct",
                ticket,
                issued,
                "--happened",
                "2026-01-05T09:12Z",
                "--because",
                "Then.",
                "--as",
                "sefa"
            )
        ).ShouldContain("is put right.");
        (await use.Command.DoneAsync("ticket", "journal", ticket)).ShouldContain("was not so. Wrong door.");
        var shown = await use.Command.DoneAsync("ticket", "show", ticket);
        shown.ShouldContain("issued to tamsel");
        shown.ShouldNotContain("on site ");
    }

    [Fact]
    public async Task A_machine_nobody_has_heard_of_is_added_and_put_right_at_the_keyboard()
    {
        (await use.Command.RunAsync("ticket", "report", "FSC-9933", "It beeps", "--bay", "3")).Error.ShouldContain(
            "nailcrow appliance add FSC-9933"
        );
        (
            await use.Command.RunAsync(
                "appliance",
                "add",
                "FSC-9933",
                "--serial",
                "CH-9933",
                "--model",
                "?",
                "--site",
                "Kiln",
                "--location",
                "Cellar"
            )
        ).Error.ShouldContain("brackmere-b12 (Brackmere");
        var added = await use.Command.DoneAsync(
            "appliance",
            "add",
            "FSC-9933",
            "--serial",
            "CH-9933",
            "--model",
            "brackmere-b12",
            "--site",
            "Kiln",
            "--customer",
            "Ferrow Glassworks",
            "--address",
            "2 Kiln Road",
            "--zone",
            "Europe/Oslo",
            "--location",
            "Cellar"
        );
        added.ShouldContain("FSC-9933 is known now: Brackmere B12 at Kiln.");
        added.ShouldContain("1 in the intake list is about it");
        (await use.Command.DoneAsync("appliance", "correct", "FSC-9933", "--location", "Cellar, rack 2", "--as", "dorrik")).ShouldContain(
            "FSC-9933: CH-9933, Kiln, Cellar, rack 2, by hand only."
        );
        (await use.Command.DoneAsync("appliance", "correct", "FSC-9933", "--site", "Corrin Deep Archive", "--as", "dorrik")).ShouldContain(
            "Corrin Deep Archive, Cellar, rack 2, by hand only."
        );
        (await use.Command.RunAsync("appliance", "correct", "FSC-9933", "--serial", "", "--as", "dorrik")).Error.ShouldContain(
            "sticker of its chassis"
        );
        (await use.Command.RunAsync("appliance", "correct", "FSC-9933", "--site", "Nowhere", "--as", "dorrik")).Error.ShouldContain(
            "which is no site here"
        );
        (await use.Command.RunAsync("appliance", "correct", "FSC-9933")).Error.ShouldContain("--serial, --location, --site or --address");
    }

    [Fact]
    public async Task Whoever_leaves_says_why_and_the_ticket_is_planned_again()
    {
        var ticket = await WithAPartAsync("CDR12TLEAVE1");
        await use.Command.DoneAsync("ticket", "arrive", ticket);

        (await use.Command.RunAsync("ticket", "leave", ticket, "--why", "bored")).Error.ShouldContain(
            "accepted: done, rebuild-runs, no-access"
        );
        (await use.Command.DoneAsync("ticket", "leave", ticket, "--why", "no-access", "--learnt", "Ring first.")).ShouldContain(
            "Plan the next visit. The last one ended: no access. Ring first."
        );
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldContain("no access. Ring first.");
    }

    [Fact]
    public async Task That_it_was_off_what_was_moved_and_what_was_advised_are_said_and_stand_on_the_ticket()
    {
        var ticket = await WithAPartAsync("CDR12TPOWER1");
        await use.Command.DoneAsync("ticket", "arrive", ticket);

        (await use.Command.RunAsync("ticket", "power", ticket, "--change", "exploded")).Error.ShouldContain(
            "accepted: found-off, power-cut, switched-off, restarted, switched-on."
        );
        (await use.Command.DoneAsync("ticket", "power", ticket, "--allowed-by", "R. Alder", "--because", "Kept safe.")).ShouldContain(
            "Say when it is on again, and who allowed it."
        );
        (await use.Command.RunAsync("ticket", "power", ticket, "--change", "switched-on")).Error.ShouldContain("say who allowed it");
        await use.Command.DoneAsync("ticket", "power", ticket, "--change", "switched-on", "--allowed-by", "R. Alder");
        await use.Command.DoneAsync("ticket", "aside", ticket, "the screen's cable");
        (await use.Command.DoneAsync("ticket", "moves", ticket)).ShouldContain("--back");
        await use.Command.DoneAsync("ticket", "advise", ticket, "Keep a spare here", "--decided", "R. Alder: next year");

        (await use.Command.DoneAsync("ticket", "proposal", ticket)).ShouldContain("Keep a spare here. Decided: R. Alder: next year");
        var shown = await use.Command.DoneAsync("ticket", "show", ticket);
        shown.ShouldContain("Found off (R. Alder): Kept safe. Off from");
        shown.ShouldContain("moved aside and not back: the screen's cable");
        (await use.Command.RunAsync("ticket", "close", ticket)).Error.ShouldContain("Moved aside and not back: the screen's cable.");
        await use.Command.DoneAsync("ticket", "aside", ticket, "The screen's cable", "--back");
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldNotContain("moved aside");
        (await use.Command.DoneAsync("ticket", "service-report", ticket)).ShouldContain("Keep a spare here. Decided: R. Alder: next year");
    }

    [Fact]
    public async Task A_procedure_that_was_withdrawn_is_used_again_and_says_so()
    {
        var version = JsonDocument
            .Parse(await use.Command.DoneAsync("procedure", "versions", "read-check", "--json"))
            .RootElement.GetProperty("version")
            .GetString()!;
        await use.Command.DoneAsync("procedure", "withdraw", "read-check", version, "Nobody waits that long.", "--as", "lioth");

        (await use.Command.RunAsync("procedure", "bring-back", "read-check", version, "They do.", "--as", "ilka")).Code.ShouldNotBe(0);
        (await use.Command.DoneAsync("procedure", "bring-back", "read-check", version, "They do.", "--as", "lioth")).ShouldContain(
            $"read-check {version} is used again."
        );
        (await use.Command.DoneAsync("procedure", "versions", "read-check")).ShouldContain("Brought back by lioth: They do.");
    }
}
