namespace Nailcrow.Cli.Tests;

/// <summary>A signature on paper, photographed, goes with the sign-off from the terminal.</summary>
public sealed class SignatureCommandTests(CommandInUse use) : IClassFixture<CommandInUse>, IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("nailcrow-signature-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private async Task<string> FileAsync(string name, byte[] content)
    {
        var file = Path.Combine(_folder, name);
        await File.WriteAllBytesAsync(file, content, TestContext.Current.CancellationToken);
        return file;
    }

    [Fact]
    public async Task A_picture_of_it_is_kept_with_the_report_as_it_is_and_what_is_no_picture_is_not()
    {
        var ticket = await use.TypedTicketAsync();
        var hand = await FileAsync(
            "hand.png",
            Convert.FromBase64String("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+A8AAQUBAScY42YAAAAASUVORK5CYII=")
        );
        var text = await FileAsync("hand.txt", "Norra Selmark"u8.ToArray());

        var none = await use.Command.RunAsync(
            "ticket",
            "sign-off",
            ticket,
            "Norra Selmark",
            "--signature",
            Path.Combine(_folder, "nowhere.png")
        );
        var unusable = await use.Command.RunAsync("ticket", "sign-off", ticket, "Norra Selmark", "--signature", text);
        (await use.Command.DoneAsync("ticket", "journal", ticket)).ShouldNotContain("Signed on the screen");
        var signed = await use.Command.DoneAsync(
            "ticket",
            "sign-off",
            ticket,
            "Norra Selmark",
            "--signature",
            hand,
            "--statement",
            "All there."
        );

        none.Code.ShouldNotBe(0);
        none.All.ShouldContain("nowhere.png");
        unusable.All.ShouldContain("accepted: JPEG and PNG");
        signed.ShouldContain($"{ticket}: signed by Norra Selmark, over the report ");
        (await use.Command.DoneAsync("ticket", "journal", ticket)).ShouldContain("Signed on the screen by Norra Selmark: All there.");
        (await use.Command.DoneAsync("admin", "verify", "--as", "admin")).ShouldContain("as they were written");
    }
}
