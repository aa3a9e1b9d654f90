using System.Text.Json;
using System.Text.RegularExpressions;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>Who may come in, from the terminal.</summary>
public sealed class PersonCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    [Fact]
    public async Task A_newcomer_is_let_in_chooses_a_password_and_is_seen_where_they_are()
    {
        var added = await use.Command.DoneAsync(
            "person",
            "add",
            "norra",
            "--full-name",
            "Norra Selmark",
            "--roles",
            "engineer",
            "--as",
            "admin"
        );
        added.ShouldStartWith("Norra Selmark (norra) may come in: engineer.\nTheir first password, shown this once: ");
        var first = added.Trim().Split(": ")[^1];
        (await use.Command.DoneAsync("person", "list", "--as", "admin")).ShouldMatch(
            "norra +Norra Selmark +engineer +yes, and chooses a password first"
        );

        var stays = await use.Command.RunWithAsync(
            new() { ["NAILCROW_PASSWORD"] = first, ["NAILCROW_NEW_PASSWORD"] = first },
            "sign-in",
            "norra"
        );
        var signedIn = await use.Command.RunWithAsync(
            new() { ["NAILCROW_PASSWORD"] = first, ["NAILCROW_NEW_PASSWORD"] = RunningService.Password },
            "sign-in",
            "norra"
        );

        (stays.Code, stays.Error).ShouldBe((1, "That is the password you have now; choose another one.\n"));
        signedIn.Output.ShouldEndWith("Signed in as Norra Selmark (norra): engineer. Good for 12 hours.\n");
        var where = await use.Command.DoneAsync("person", "sign-ins", "--as", "norra");
        where.ShouldContain($"the command on {Environment.MachineName} (this one)");
        (await use.Command.DoneAsync("person", "list", "--as", "admin")).ShouldMatch("norra +Norra Selmark +engineer +yes\n");
    }

    [Fact]
    public async Task Who_is_shut_out_is_told_to_sign_in_and_cannot()
    {
        await use.Service.LetInAsync("wynn", Core.People.Role.Engineer);
        await use.Command.DoneAsync("sign-in", "wynn");

        var said = await use.Command.DoneAsync("person", "disable", "wynn", "--because", "Lost the phone", "--as", "admin");

        said.ShouldBe("wynn may not come in any more.\nwynn leads no open ticket and holds nothing.\n");
        var next = await use.Command.RunAsync("who", "--as", "wynn");
        (next.Code, next.Error).ShouldBe((4, "wynn is not signed in any longer; 'nailcrow sign-in wynn' does that.\n"));
        (await use.Command.RunAsync("sign-in", "wynn")).Error.ShouldBe("Name and password do not go together.\n");
        (await use.Command.DoneAsync("person", "enable", "wynn", "--as", "admin")).ShouldBe("wynn may come in again: engineer.\n");
        await use.Command.DoneAsync("sign-in", "wynn");
    }

    [Fact]
    public async Task Signing_out_ends_the_token_and_not_only_what_is_kept_here()
    {
        await use.Service.LetInAsync("elka", Core.People.Role.Engineer);
        await use.Command.DoneAsync("sign-in", "elka");
        var there = await use.Service.SignInAsync("elka");

        (await use.Command.DoneAsync("sign-out", "--as", "elka")).ShouldBe("elka is signed out.\n");

        (await there.ComingsInAsync("elka", TestContext.Current.CancellationToken)).Sessions.ShouldNotContain(s =>
            s.Device.StartsWith("the command")
        );
    }

    [Fact]
    public async Task A_script_acts_with_a_key_and_no_more_once_it_is_ended()
    {
        await use.Service.LetInAsync("runa", Core.People.Role.Engineer);
        await use.Command.DoneAsync("sign-in", "runa");
        var made = await use.Command.DoneAsync("key", "make", "night report", "--read-only", "--as", "runa");
        made.ShouldMatch("'night report': reads only as engineer, until [0-9-]+\\. Shown this once:\nnailcrow-key\\.");
        var with = new Dictionary<string, string> { ["NAILCROW_KEY"] = made.Trim().Split('\n')[^1] };

        (await use.Command.RunWithAsync(with, "who")).Output.ShouldStartWith("runa (runa): engineer, at ");
        var writes = await use.Command.RunWithAsync(with, "ticket", "report", "FSC-0203", "Lamp is off");
        (writes.Code, writes.Error).ShouldBe((4, "This key reads only; make one that also writes, or sign in.\n"));

        var keys = JsonDocument
            .Parse(await use.Command.DoneAsync("person", "sign-ins", "--json", "--as", "runa"))
            .RootElement.GetProperty("keys");
        var id = keys[0].GetProperty("id").GetGuid().ToString("N")[^8..];
        (await use.Command.DoneAsync("person", "end", id, "--as", "runa")).ShouldBe("Ended: the key 'night report'.\n");
        var ended = await use.Command.RunWithAsync(with, "who");
        ended.Code.ShouldBe(4);
        ended.Error.ShouldBe(
            "The key in NAILCROW_KEY opens nothing: it was ended, has run out, or is not whole. 'nailcrow key make' makes another.\n"
        );
    }

    [Fact]
    public async Task Who_leaves_hands_over_first()
    {
        await use.Service.LetInAsync("tove", Core.People.Role.Engineer);
        await use.Command.DoneAsync("sign-in", "tove");
        var ticket = await use.TypedTicketAsync();
        await use.Command.DoneAsync("ticket", "assign", ticket, "tove", "--as", "tove");

        (await use.Command.DoneAsync("person", "holds", "tove", "--as", "admin")).ShouldContain(
            "Next: nailcrow person hand-over tove --to ENGINEER"
        );
        (await use.Command.RunAsync("person", "leave", "tove", "--because", "To sea", "--as", "admin")).Error.ShouldStartWith(
            $"tove leads {ticket}. Hand the tickets over"
        );
        (await use.Command.DoneAsync("person", "hand-over", "tove", "--to", "ilka", "--as", "dorrik")).ShouldBe(
            $"ilka has {ticket} now.\n"
        );
        (await use.Command.DoneAsync("person", "leave", "tove", "--because", "To sea", "--as", "admin")).ShouldBe(
            "tove (tove) has left; what they wrote stays theirs.\n"
        );
    }

    [Fact]
    public async Task Names_roles_and_passwords_are_put_right()
    {
        await use.Service.LetInAsync("yrsa", Core.People.Role.Engineer);

        (await use.Command.DoneAsync("person", "rename", "yrsa", "Yrsa Holmgard", "--as", "admin")).ShouldBe("yrsa is Yrsa Holmgard.\n");
        (await use.Command.DoneAsync("person", "roles", "yrsa", "engineer,stores", "--as", "admin")).ShouldBe("yrsa: engineer, stores.\n");
        (await use.Command.DoneAsync("person", "password", "yrsa", "--as", "admin")).ShouldStartWith(
            "yrsa has another password, and has to change it.\nTheir first password, shown this once: "
        );
        var log = await use.Command.DoneAsync("admin", "security", "--by", "admin", "--lines", "3", "--as", "admin");
        Regex
            .Matches(log, "password-given|roles-changed|person-renamed")
            .Select(m => m.Value)
            .ShouldBe(["password-given", "roles-changed", "person-renamed"]);
        (await use.Command.RunAsync("person", "roles", "admin", "lead", "--as", "admin")).Error.ShouldStartWith(
            "admin is the last administrator who may come in"
        );
        (await use.Command.RunAsync("person", "roles", "yrsa", "captain", "--as", "admin")).Code.ShouldBe(2);
    }

    [Fact]
    public async Task Ones_own_password_is_changed_and_every_other_sign_in_is_over()
    {
        await use.Service.LetInAsync("josa", Core.People.Role.Engineer);
        await use.Command.DoneAsync("sign-in", "josa");
        var there = await use.Service.SignInAsync("josa");

        var changed = await use.Command.RunWithAsync(
            new() { ["NAILCROW_NEW_PASSWORD"] = "seven grey kettles" },
            "password",
            "--as",
            "josa"
        );

        changed.Output.ShouldBe("josa has another password; every other sign-in of theirs is over.\n");
        await Should.ThrowAsync<Client.ApiProblem>(() => there.MeAsync(TestContext.Current.CancellationToken));
        (await use.Command.DoneAsync("who", "--as", "josa")).ShouldStartWith("josa (josa): engineer");
    }
}
