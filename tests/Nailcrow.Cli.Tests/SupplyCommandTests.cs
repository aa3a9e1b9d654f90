namespace Nailcrow.Cli.Tests;

/// <summary>What has no serial, in the terminal: it comes, goes into a van, is used on a ticket, and is counted.</summary>
public sealed class SupplyCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    private Task<string> AsSefaAsync(params string[] words) => use.Command.DoneAsync(["stock", "supply", .. words, "--as", "sefa"]);

    private async Task<string> RefusedAsync(params string[] words)
    {
        var said = await use.Command.RunAsync(["stock", "supply", .. words, "--as", "sefa"]);
        said.Code.ShouldNotBe(0, said.All);
        return said.All.ReplaceLineEndings(" ");
    }

    [Fact]
    public async Task Carriers_come_go_into_a_van_are_used_on_a_ticket_and_every_line_is_told()
    {
        (await AsSefaAsync("came", "drive carriers", "20", "--depot", "Cellar")).ShouldContain("drive carriers: 20 came to depot Cellar");
        await AsSefaAsync("move", "Drive Carriers", "4", "--from", "Cellar", "--to", "van of ilka");
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "assign", ticket, "ilka", "--as", "dorrik");

        (await use.Command.DoneAsync("part", "used", ticket, "drive carriers", "2", "--as", "ilka")).ShouldContain(
            "2 drive carriers used."
        );

        var slip = await use.Command.RunAsync("part", "used", ticket, "drive carrier", "--as", "ilka");
        slip.Code.ShouldBe(1);
        slip.Error.ShouldContain("drive carriers reads nearly the same");
        var list = await AsSefaAsync("list");
        list.ShouldContain("drive carriers");
        list.ShouldContain("2 van of ilka");
        (await AsSefaAsync("list", "--van", "ilka")).ShouldContain("drive carriers");
        (await AsSefaAsync("list", "--depot", "Nowhere")).ShouldContain("Nothing that is counted is in depot Nowhere.");
        var line = await AsSefaAsync("show", "drive carriers");
        line.ShouldContain($"2 used on {ticket}, from the van of ilka.");
        (await use.Command.DoneAsync("stock", "balance", "--as", "sefa")).ShouldContain(
            "drive carriers: 20 came, 0 found, 2 used, 0 missing, 18 there"
        );
        (await use.Command.DoneAsync("ticket", "moves", ticket, "--as", "ilka")).ShouldContain("part used");
    }

    [Fact]
    public async Task A_count_tells_the_difference_and_a_new_name_nearly_like_a_known_one_is_asked_about()
    {
        await AsSefaAsync("came", "P3 screws", "100", "--depot", "Cellar");

        (await AsSefaAsync("count", "P3 screws", "97", "--depot", "Cellar")).ShouldContain(
            "P3 screws: 97 in depot Cellar, 3 fewer than recorded."
        );
        (await RefusedAsync("came", "P4 screws", "5", "--depot", "Cellar")).ShouldContain("With --as-named it is a new one.");
        (await AsSefaAsync("came", "P4 screws", "5", "--depot", "Cellar", "--as-named")).ShouldContain("P4 screws: 5 came");
        (await AsSefaAsync("used", "P4 screws", "1", "--depot", "Cellar", "--note", "Bent.")).ShouldContain(
            "1 used up; 4 left in depot Cellar."
        );
    }

    [Fact]
    public async Task What_cannot_be_is_told_with_what_would_be_taken()
    {
        (await RefusedAsync("came", "labels", "-3", "--depot", "Cellar")).ShouldContain("1 to 1,000,000 are taken");
        (await RefusedAsync("came", "labels", "many", "--depot", "Cellar")).ShouldContain("many");
        (await RefusedAsync("came", "labels", "3")).ShouldContain("Say where: one of --depot NAME and --van NAME.");
        (await RefusedAsync("show", "unobtainium")).ShouldContain("Nothing is known of unobtainium; 'nailcrow stock supply list'");
        (await RefusedAsync("move", "labels", "3", "--from", "Cellar", "--to", "Loft")).ShouldContain("Nothing is known of labels.");
        (await use.Command.RunAsync("stock", "supply", "came", "labels", "3", "--depot", "Cellar", "--as", "ilka")).Code.ShouldNotBe(0);
    }
}
