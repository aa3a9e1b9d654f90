using System.Text.Json;
using System.Text.Json.Nodes;
using Nailcrow.Client;

namespace Nailcrow.Cli.Tests;

/// <summary>Stores' day in the terminal: goods in, a scanner at the input, a ticket's part, a count, and the balance.</summary>
public sealed class StockCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private static readonly string[] New = ["--depot", "Cellar", "--model", "Cindral C12T", "--size", "14TB"];

    private Task<string> AsSefaAsync(params string[] words) => use.Command.DoneAsync([.. words, "--as", "sefa"]);

    [Fact]
    public async Task Goods_in_are_scanned_one_after_the_other_and_lie_on_their_shelf()
    {
        var scanned = await use.Command.RunWithInputAsync(
            "SCAN00001A\nSCAN00002B\n\n",
            ["stock", "receive", .. New, "--shelf", "B2", "--as", "sefa"]
        );

        scanned.Code.ShouldBe(0, scanned.All);
        scanned.Output.ShouldContain("SCAN00001A is new here: Cindral C12T");
        (await AsSefaAsync("stock", "list", "--depot", "Cellar", "--shelf", "B2")).ShouldContain("SCAN00002B");
        (await AsSefaAsync("stock", "show", "--depot", "Cellar")).ShouldContain("Cindral C12T");
    }

    [Fact]
    public async Task What_has_to_be_said_first_is_told_and_the_rest_goes_on()
    {
        await AsSefaAsync(["stock", "receive", "KNOWN0001A", .. New]);

        var both = await use.Command.RunAsync([
            "stock",
            "receive",
            "NOBODYS77Q",
            "KNOWN0001A",
            "--depot",
            "Cellar",
            "--shelf",
            "C3",
            "--as",
            "sefa",
        ]);

        both.Code.ShouldBe(1);
        both.All.ShouldContain("Nothing is known of NOBODYS77Q. Say its model and size");
        both.All.ShouldContain("KNOWN0001A went from depot Cellar to depot Cellar, shelf C3.");
        both.All.ShouldContain("1 done, 1 not");
    }

    [Fact]
    public async Task A_depot_that_reads_nearly_like_another_is_asked_about_and_said_to_be_new()
    {
        await AsSefaAsync(["stock", "receive", "DEPOT0001A", "--depot", "Lighthouse", .. New[2..]]);

        var asked = await use.Command.RunAsync(["stock", "move", "DEPOT0001A", "--depot", "Lighthuose", "--as", "sefa"]);
        var supply = await use.Command.RunAsync(["stock", "supply", "came", "rail bolts", "4", "--depot", "Lighthuose", "--as", "sefa"]);
        var van = await use.Command.RunAsync(["stock", "move", "DEPOT0001A", "--van", "ilca", "--as", "sefa"]);

        (asked.Code, supply.Code, van.Code).ShouldBe((1, 1, 1));
        foreach (var answer in new[] { asked, supply })
            answer.All.ShouldContain(
                "Nothing lies in a depot 'Lighthuose', and there is Lighthouse. Say which it is. With --new-depot it is another one."
            );
        van.All.ShouldContain("'ilca' is no engineer here, and has no van; engineers: ");
        (await AsSefaAsync("stock", "move", "DEPOT0001A", "--depot", "Lighthuose", "--new-depot")).ShouldContain(
            "DEPOT0001A went from depot Lighthouse to depot Lighthuose."
        );
    }

    [Fact]
    public async Task A_part_goes_from_its_shelf_by_its_ticket_to_a_person_and_back_and_its_line_tells_it()
    {
        await AsSefaAsync(["stock", "receive", "LINE00001A", .. New]);
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "assign", ticket, "ilka", "--as", "dorrik");
        await AsSefaAsync("part", "reserve", ticket, "LINE00001A");
        var again = await use.Command.RunAsync([
            "part",
            "reserve",
            await use.TypedTicketAsync(),
            "LINE00001A",
            "--model",
            "Cindral C12T",
            "--size",
            "14TB",
            "--depot",
            "Cellar",
            "--as",
            "sefa",
        ]);
        again.Code.ShouldBe(1);
        again.All.ShouldContain($"LINE00001A is set aside for {ticket} already.");

        (await AsSefaAsync("stock", "issue", "LINE00001A", "--to", "ilka")).ShouldContain($"LINE00001A is with ilka, for {ticket}.");
        (await AsSefaAsync("stock", "receive", "LINE00001A", "--depot", "Cellar")).ShouldContain($"LINE00001A is taken back from {ticket}");

        var line = await AsSefaAsync("stock", "part", "LINE00001A");
        foreach (
            var told in new[] { "Came to depot Cellar.", "Set aside.", "Went to engineer ilka.", "Went to depot Cellar.", $"for {ticket}" }
        )
            line.ShouldContain(told);
    }

    [Fact]
    public async Task A_part_that_was_given_up_is_nobodys_replacement_and_whoever_wants_one_that_is_away_is_told_who_has_it()
    {
        await AsSefaAsync(["stock", "receive", "AWAY00001A", .. New]);
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "assign", ticket, "ilka", "--as", "dorrik");
        await AsSefaAsync("part", "reserve", ticket, "AWAY00001A");
        (await use.Command.DoneAsync("bring", ticket)).ShouldContain("AWAY00001A Cindral C12T: set aside in Cellar");
        await AsSefaAsync("part", "issue", ticket);
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldContain("AWAY00001A Cindral C12T, with ilka");

        var other = await use.Command.RunAsync("part", "reserve", await use.TypedTicketAsync(), "away00001a", "--as", "sefa");
        (other.Code, other.Error.Trim()).ShouldBe(
            (
                1,
                "AWAY00001A is in no depot: it is with engineer ilka. Take another part; 'nailcrow stock receive AWAY00001A' takes in one "
                    + "that is back."
            )
        );
        var second = await use.Command.RunAsync(["part", "reserve", ticket, "AWAY00002B", .. New, "--as", "sefa"]);
        second.Error.ShouldContain(
            "AWAY00001A is already issued to ilka for this ticket. Another takes the place of one that was given up."
        );

        await use.Command.DoneAsync("part", "give-up", ticket, "AWAY00001A", "--why", "dead-on-arrival");
        foreach (var told in new[] { await use.Command.DoneAsync("bring", ticket), await use.Command.DoneAsync("ticket", "show", ticket) })
            told.ShouldContain("given up: dead on arrival");
        var asBefore = JsonNode.Parse(await use.Command.DoneAsync("ticket", "show", ticket, "--json"))!.AsObject(); // it is an object
        asBefore.Remove("replacements").ShouldBeTrue(); // as a release before answers
        asBefore.Deserialize(ContractJson.Default.TicketView)!.Replacements.Single().Is.ShouldBe("given up: dead on arrival"); // and that one
    }

    [Fact]
    public async Task A_van_is_counted_and_everything_balances()
    {
        await AsSefaAsync(["stock", "receive", "VANS00001A", "VANS00002B", .. New]);
        await AsSefaAsync("stock", "issue", "VANS00001A", "--to", "ilka");

        var counted = await AsSefaAsync("stock", "count", "--van", "ilka", "VANS00002B", "--book");

        counted.ShouldContain("missing VANS00001A");
        counted.ShouldContain("VANS00002B is here; by the record it is in depot Cellar.");
        counted.ShouldContain("VANS00002B went from depot Cellar to the van of ilka.");
        (await AsSefaAsync("stock", "balance")).ShouldContain("difference 0.");
        var refused = await use.Command.RunAsync(["stock", "write-off", "VANS00001A", "Gone", "--on-it", "Nothing", "--as", "sefa"]);
        refused.Code.ShouldBe(4);
        (await use.Command.DoneAsync("stock", "write-off", "VANS00001A", "Gone", "--on-it", "Nothing", "--as", "lioth")).ShouldContain(
            "VANS00001A is written off; it was in the van of ilka."
        );
    }

    [Fact]
    public async Task Nonsense_is_told_what_would_be_taken()
    {
        (await use.Command.RunAsync(["stock", "receive", "A1B2C3D4E5", "--as", "sefa"])).All.ShouldContain(
            "Say where: one of --depot NAME"
        );
        (await use.Command.RunAsync(["stock", "list", "--van", "ilka", "--shelf", "B", "--as", "sefa"])).All.ShouldContain(
            "A van has no shelves"
        );
        (await use.Command.RunAsync(["stock", "count", "--depot", "Cellar", "--as", "sefa"])).All.ShouldContain("No serial was scanned.");
        (await use.Command.RunAsync(["stock", "part", "!!", "--as", "sefa"])).Code.ShouldBe(1);
        (await AsSefaAsync("stock", "list", "--depot", "Nowhere")).ShouldContain("Nothing is in depot Nowhere.");
    }
}
