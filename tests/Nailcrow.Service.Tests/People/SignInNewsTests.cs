using Nailcrow.Client;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.People;

/// <summary>Whatever is changed of how somebody comes in, they are told: by mail where they have an address, and on their page.</summary>
public sealed class SignInNewsTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_new_password_is_told_by_mail_once_however_long_the_mail_server_was_away()
    {
        await using var post = await PostAsync();
        await LetInAsync("marrow", "marrow@fenwright.example");
        await post.HandAsync("behave/down");
        var calls = await CallsAsync(post);
        var marrow = await service.Service.SignInAsync("marrow");
        await marrow.ChangePasswordAsync(RunningService.Password, "seven grey kettles", Ct);
        await Soon.IsAsync(async () => await CallsAsync(post) > calls, Ct);
        (await MailsAsync(post, "marrow@fenwright.example", 0)).ShouldNotContain(m =>
            m.Contains("Your password was changed", StringComparison.Ordinal)
        );

        await post.HandAsync("behave/well");

        var told = (await MailsAsync(post, "marrow@fenwright.example", 1)).Single(m =>
            m.Contains("Your password was changed", StringComparison.Ordinal)
        );
        told.ShouldContain("If anything was changed that you know nothing of, tell an administrator at once.");
        told.ShouldContain(", from 127.0.0.1.");
        told.ShouldContain($"{service.Service.Address}you");
    }

    [Fact]
    public async Task Who_changes_where_mails_go_is_told_to_the_address_before_as_well()
    {
        await using var post = await PostAsync();
        await LetInAsync("nettle", "nettle@fenwright.example");
        var admin = await service.AsAsync("admin");

        await admin.PutPersonMailAsync("nettle", "elsewhere@fenwright.example", Ct);
        await admin.PutPersonMailAsync("nettle", "elsewhere@fenwright.example", Ct); // said twice

        const string Said = "admin changed where mails for you go: from nettle@fenwright.example to elsewhere@fenwright.example.";
        foreach (var to in new[] { "nettle@fenwright.example", "elsewhere@fenwright.example" })
            (await MailsAsync(post, to, 1)).Count(m => m.StartsWith($"Nailcrow: {Said}", StringComparison.Ordinal)).ShouldBe(1, to);
    }

    [Fact]
    public async Task Who_has_no_address_reads_it_on_their_page_and_nobody_elses_stands_there()
    {
        await service.Service.LetInAsync("orrin", Role.Engineer);
        await service.Service.LetInAsync("orrin-b", Role.Engineer);
        var (admin, orrin) = (await service.AsAsync("admin"), await service.Service.SignInAsync("orrin"));
        await admin.PutRolesAsync("orrin", [Role.Engineer, Role.Lead], Ct);
        await orrin.MakeKeyAsync("orrin", new("night report", DateOnly.FromDateTime(DateTime.UtcNow), [Role.Engineer], ReadOnly: true), Ct);

        var changes = (await orrin.ComingsInAsync("orrin", Ct)).Changes;

        changes
            .Select(c => c.Says.Split(':')[0].Split(',')[0])
            .ShouldBe([
                "A key for a script was made that acts in your name",
                "admin changed what you may do",
                "Your password was changed.",
            ]);
        changes[1].Says.ShouldBe("admin changed what you may do: from engineer to engineer,lead.");
        changes.ShouldAllBe(c => c.From == "127.0.0.1");
        (await admin.ComingsInAsync("orrin-b", Ct)).Changes.Select(c => c.Says).ShouldBe(["Your password was changed."]);
    }

    [Fact]
    public async Task What_somebody_changed_of_others_crowds_nothing_of_their_own_out()
    {
        await service.Service.LetInAsync("sorrel", Role.Admin);
        await service.Service.LetInAsync("thrift", Role.Engineer);
        var sorrel = await service.Service.SignInAsync("sorrel");
        for (var times = 0; times < 15; times++)
            await sorrel.PutRolesAsync("thrift", times % 2 == 0 ? [Role.Engineer, Role.Stores] : [Role.Engineer], Ct);

        (await sorrel.ComingsInAsync("sorrel", Ct)).Changes.Select(c => c.Says).ShouldBe(["Your password was changed."]);
        (await sorrel.ComingsInAsync("thrift", Ct)).Changes.Count.ShouldBe(10); // the newest
    }

    private async Task LetInAsync(string name, string mail)
    {
        await service.Service.LetInAsync(name, Role.Engineer);
        await (await service.AsAsync("admin")).PutPersonMailAsync(name, mail, Ct);
    }

    private async Task<RunningStandIn> PostAsync()
    {
        var post = await RunningStandIn.MailAsync();
        await (await service.AsAsync("admin")).PutPartnerAsync(
            "Post",
            new(PartnerKind.Mail, $"{post.TakesMailAt}care@fenwright.example"),
            Ct
        );
        return post;
    }

    /// <summary>How often it was called, whatever it made of it.</summary>
    private static async Task<int> CallsAsync(RunningStandIn post)
    {
        using var seen = System.Text.Json.JsonDocument.Parse(await post.LookAsync());
        return seen.RootElement.GetProperty("calls").GetInt32();
    }

    /// <summary>What it took for an address, each as its subject and its text; waited for until there are as many more than the first.</summary>
    private static async Task<IReadOnlyList<string>> MailsAsync(RunningStandIn post, string to, int atLeast)
    {
        return await Soon.ComesAsync(
            async () =>
            {
                using var seen = System.Text.Json.JsonDocument.Parse(await post.LookAsync());
                return (IReadOnlyList<string>)
                    [
                        .. seen
                            .RootElement.GetProperty("now")
                            .EnumerateArray()
                            .Where(m => m.GetProperty("to").GetString() == to)
                            .Select(m => $"{m.GetProperty("subject").GetString()}\n{m.GetProperty("text").GetString()}"),
                    ];
            },
            // That they were let in with an address was told as well, to the address itself.
            mails => mails.Count(m => !m.Contains("from nowhere to", StringComparison.Ordinal)) >= atLeast,
            Ct
        );
    }
}
