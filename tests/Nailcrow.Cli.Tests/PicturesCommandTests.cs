using System.Text.RegularExpressions;

namespace Nailcrow.Cli.Tests;

/// <summary>Pictures that go, from the terminal: one at once, by a lead, and all of a customer's after a time.</summary>
public sealed partial class PicturesCommandTests(CommandInUse use) : IClassFixture<CommandInUse>, IDisposable
{
    private readonly string _file = Path.GetTempFileName();

    public void Dispose() => File.Delete(_file);

    [GeneratedRegex(@"^\s*(?<seq>\d+) .*The rack's plate", RegexOptions.Multiline)]
    private static partial Regex OfThePlate();

    private async Task<(string Ticket, string Entry)> PictureAsync()
    {
        await File.WriteAllBytesAsync(
            _file,
            Convert.FromBase64String("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+A8AAQUBAScY42YAAAAASUVORK5CYII="),
            TestContext.Current.CancellationToken
        );
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "photo", ticket, _file, "--says", "The rack's plate");
        return (ticket, OfThePlate().Match(await use.Command.DoneAsync("ticket", "journal", ticket)).Groups["seq"].Value);
    }

    [Fact]
    public async Task A_lead_lets_go_of_one_with_a_reason_and_the_ticket_says_that_there_was_one()
    {
        var (ticket, entry) = await PictureAsync();

        (await use.Command.DoneAsync("ticket", "correct", ticket, entry, "--as", "lioth")).ShouldContain("--picture-goes --because REASON");
        var mine = await use.Command.RunAsync("ticket", "correct", ticket, entry, "--picture-goes", "--because", "A face is on it");
        var bare = await use.Command.RunAsync("ticket", "correct", ticket, entry, "--picture-goes", "--as", "lioth");
        var both = await use.Command.RunAsync(
            "ticket",
            "correct",
            ticket,
            entry,
            "--picture-goes",
            "--not-so",
            "--because",
            "x",
            "--as",
            "lioth"
        );
        var none = await use.Command.RunAsync("ticket", "correct", ticket, "1", "--picture-goes", "--because", "x", "--as", "lioth");
        var gone = await use.Command.DoneAsync(
            "ticket",
            "correct",
            ticket,
            entry,
            "--picture-goes",
            "--because",
            "A face is on it",
            "--as",
            "lioth"
        );

        mine.Code.ShouldBe(1);
        mine.All.ShouldContain("it takes the role lead");
        (bare.Code, both.Code, none.Code).ShouldBe((2, 2, 1));
        bare.All.ShouldContain("--because");
        both.All.ShouldContain("Say one thing at once");
        none.All.ShouldContain("No picture came with this entry.");
        gone.ShouldContain($"the picture of entry {entry} is kept no more.");
        (await use.Command.DoneAsync("ticket", "show", ticket)).ShouldContain("0, and 1 that is kept no more");
        (await use.Command.DoneAsync("ticket", "journal", ticket)).ShouldContain("A picture is kept no more: A face is on it");
        (await use.Command.DoneAsync("admin", "verify", "--as", "admin")).ShouldContain("as they were written");
    }

    [Fact]
    public async Task How_long_they_are_kept_is_said_of_a_customer_and_taken_back()
    {
        await use.Command.DoneAsync("customer", "add", "Vane Trust", "--pictures-months", "24", "--as", "dorrik");

        (await use.Command.DoneAsync("customer", "show", "Vane Trust")).ShouldContain(
            "pictures   go 24 months after a ticket ends, from 20"
        );
        (
            await use.Command.RunAsync("customer", "change", "Vane Trust", "--pictures-months", "two", "--as", "dorrik")
        ).ShouldSatisfyAllConditions(
            no => no.Code.ShouldBe(2),
            no => no.All.ShouldContain("--pictures-months is 'two'; write a number of months, or none.")
        );
        (await use.Command.RunAsync("customer", "change", "Vane Trust", "--pictures-months", "0", "--as", "dorrik")).All.ShouldContain(
            "1 to 600 are taken"
        );
        (await use.Command.DoneAsync("customer", "change", "Vane Trust", "--pictures-months", "none", "--as", "dorrik")).ShouldContain(
            "pictures   are kept as long as the record"
        );
    }
}
