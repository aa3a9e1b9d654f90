namespace Nailcrow.Cli.Tests;

/// <summary>The papers of a ticket in the terminal: which there are, and each as a file.</summary>
public sealed class DocumentCommandTests(CommandInUse use) : IClassFixture<CommandInUse>, IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("nailcrow-documents-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private IEnumerable<string> Files => Directory.EnumerateFiles(_folder).Select(f => Path.GetFileName(f)).Order();

    [Fact]
    public async Task All_that_there_are_are_written_and_what_is_not_yet_is_listed_with_why()
    {
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "assign", ticket, "ilka", "--as", "dorrik");
        await use.Command.DoneAsync(
            "part",
            "reserve",
            ticket,
            "PAPER0001A",
            "--model",
            "Cindral C12T",
            "--size",
            "14TB",
            "--depot",
            "Hill",
            "--as",
            "sefa"
        );
        await use.Command.DoneAsync("stock", "issue", "PAPER0001A", "--to", "ilka", "--as", "sefa");
        await use.Command.DoneAsync("return", "open", ticket, "PAPER0001A", "--to-depot", "Hill");

        var listed = await use.Command.DoneAsync("document", "list", ticket);
        await use.Command.DoneAsync("document", "save", ticket, "--into", _folder);

        listed.ShouldContain("Label for the box with PAPER0001A");
        listed.ShouldContain("not yet: There is no run sheet on this ticket yet; start one first.");
        Files.ShouldBe([
            $"{ticket} delivery-note.pdf",
            $"{ticket} packing-list depot Hill.pdf",
            $"{ticket} return-label PAPER0001A.pdf",
            $"{ticket} service-report.pdf",
        ]);
    }

    [Fact]
    public async Task One_is_asked_for_by_its_name_and_what_cannot_be_had_leaves_no_file_behind()
    {
        var ticket = await use.TypedTicketAsync();

        var none = await use.Command.RunAsync("document", "save", ticket, "return-label", "--into", _folder);
        var nonsense = await use.Command.RunAsync("document", "save", ticket, "letter", "--into", _folder);
        var halfSaid = await use.Command.RunAsync("document", "save", ticket, "--about", "X1", "--into", _folder);
        await use.Command.DoneAsync("document", "save", ticket, "service-report", "--into", _folder);

        none.All.ShouldContain("none, open one first");
        nonsense.All.ShouldContain("'letter' is not a kind of paper");
        halfSaid.All.ShouldContain("Say which paper about that");
        new[] { none.Code, nonsense.Code, halfSaid.Code }.ShouldAllBe(code => code != 0);
        Files.ShouldBe([$"{ticket} service-report.pdf"]);
    }

    [Fact]
    public async Task Stores_writes_labels_of_some_parts_or_of_a_shelf_and_the_picking_list()
    {
        var (labels, shelf, picking) = (
            Path.Combine(_folder, "one.pdf"),
            Path.Combine(_folder, "shelf.pdf"),
            Path.Combine(_folder, "pick.pdf")
        );
        string[] at = ["--depot", "Paper cellar", "--shelf", "B2"];
        await use.Command.DoneAsync(["stock", "receive", "PAPER0002B", .. at, "--model", "Cindral C12T", "--size", "14TB", "--as", "sefa"]);

        await use.Command.DoneAsync("stock", "labels", "PAPER0002B", "--into", labels);
        await use.Command.DoneAsync(["stock", "labels", .. at, "--into", shelf]);
        await use.Command.DoneAsync("stock", "picking-list", "--depot", "Paper cellar", "--into", picking);
        var nothing = await use.Command.RunAsync("stock", "labels", "--depot", "Nowhere", "--into", Path.Combine(_folder, "none.pdf"));

        Files.ShouldBe(["one.pdf", "pick.pdf", "shelf.pdf"]);
        nothing.All.ShouldContain("Nothing is in depot Nowhere.");
    }
}
