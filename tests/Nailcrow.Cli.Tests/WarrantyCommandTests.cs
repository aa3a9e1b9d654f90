namespace Nailcrow.Cli.Tests;

/// <summary>Warranties in the terminal: a list brought in, told, and read where somebody decides by it.</summary>
public sealed class WarrantyCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    [Fact]
    public async Task A_list_is_tried_brought_in_found_again_and_told_of_a_drive_and_of_a_part_to_bring()
    {
        var list = Path.GetTempFileName();
        await File.WriteAllTextAsync(
            list,
            "until,serial,model,terms\n2061-03-31,WARRANTY01A,,exchange in advance\n2020-01-31,,Cindral C14T,\n31.1.2020,WARRANTY02B,,\n",
            TestContext.Current.CancellationToken
        );
        (await use.Command.DoneAsync("warranty", "list")).ShouldContain("'nailcrow import warranties FILE --write' brings a list in.");

        (await use.Command.RunAsync("import", "warranties", list, "--as", "lioth")).All.ShouldContain(
            "until has '31.1.2020'; write days as 2026-12-25."
        );
        (await use.Command.DoneAsync("warranty", "list")).ShouldContain("Nothing is known");
        await use.Command.RunAsync("import", "warranties", list, "--write", "--as", "lioth");

        var told = await use.Command.DoneAsync("warranty", "list");
        told.ShouldContain("every Cindral C14T  its warranty ended on 2020-01-31, by our list of ");
        told.ShouldContain("WARRANTY01A  under warranty until 2061-03-31 (exchange in advance)");
        (await use.Command.DoneAsync("warranty", "list", "--from", "2026-01-01")).ShouldNotContain("C14T");
        (await use.Command.DoneAsync("drive", "show", "WARRANTY01A")).ShouldContain("warranty: under warranty until 2061-03-31");

        await use.Command.DoneAsync(
            "stock",
            "receive",
            "WARRANTY01A",
            "--depot",
            "Cellar",
            "--model",
            "Cindral C12T",
            "--size",
            "14tb",
            "--as",
            "sefa"
        );
        var ticket = await use.TypedTicketAsync();
        var bring = await use.Command.DoneAsync("bring", ticket, "--json");
        bring.ShouldContain("Under warranty until 2061-03-31.");
        bring.ShouldContain("\"bytes\": 14002727510016"); // 14 TB on a label is that many bytes
        File.Delete(list);
    }
}
