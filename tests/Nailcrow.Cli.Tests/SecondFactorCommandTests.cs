using System.Text.Json;
using System.Text.RegularExpressions;
using Nailcrow.Core.People;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>A second factor, set up and shown in the terminal.</summary>
public sealed partial class SecondFactorCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    [GeneratedRegex("The key, where your device reads no picture: (?<key>[A-Z2-7 ]+)")]
    private static partial Regex KeyShown { get; }

    [Fact]
    public async Task One_time_codes_are_set_up_from_what_the_terminal_shows_and_asked_for_from_then_on()
    {
        await use.Service.LetInAsync("marrow", Role.Engineer);
        await use.Command.DoneAsync("sign-in", "marrow");
        (await use.Command.DoneAsync("second-factor", "show", "--as", "marrow")).ShouldBe(
            "No one-time codes; 'nailcrow second-factor codes' sets them up.\n"
        );
        CodeDevice? device = null;
        var set = await use.Command.RunAnsweredAsync(
            KeyShown,
            shown => (device = new(shown.Groups["key"].Value)).Shows(DateTimeOffset.UtcNow),
            "second-factor",
            "codes",
            "--as",
            "marrow"
        );
        set.Code.ShouldBe(0, set.All);
        set.Output.ShouldContain("█");
        set.Output.ShouldContain("From now on a code is asked for when you sign in.");
        var recovery = Regex.Matches(set.Output, "[b-z2-9]{5}-[b-z2-9]{5}").Select(m => m.Value).ToList();
        recovery.Count.ShouldBe(10);

        var wrong = await use.Command.RunWithInputAsync("000000\n", "sign-in", "marrow");
        wrong.Code.ShouldNotBe(0);
        wrong.All.ReplaceLineEndings(" ").ShouldContain("Type the six digits that your device shows now, or a recovery code.");
        wrong.All.ReplaceLineEndings(" ").ShouldContain("That code is another one, or was used before.");
        (await use.Command.RunWithInputAsync($"{recovery[0]}\n", "sign-in", "marrow")).Code.ShouldBe(0);
        var next = device.ShouldNotBeNull().Shows(DateTimeOffset.UtcNow.AddSeconds(30)); // the one now was used to set it up
        (await use.Command.RunWithAsync(new() { ["NAILCROW_CODE"] = next }, "sign-in", "marrow")).Code.ShouldBe(0);
        (await use.Command.DoneAsync("second-factor", "show", "--as", "marrow")).ShouldMatch(
            "One-time codes since \\d{4}-\\d\\d-\\d\\d.\nRecovery codes left: 9."
        );
        (await use.Command.DoneAsync("second-factor", "recovery", "--as", "marrow")).ShouldContain(
            "Those before are good for nothing now."
        );

        (await use.Command.RunAsync("person", "second-factor-lost", "marrow", "--as", "marrow")).Error.ShouldContain(
            "Your roles do not allow this."
        );
        (await use.Command.DoneAsync("person", "second-factor-lost", "marrow", "--as", "admin")).ShouldStartWith(
            "marrow has no second factor any more, and signs in with the password alone."
        );
        await use.Command.DoneAsync("sign-in", "marrow");
        using var offered = JsonDocument.Parse(await use.Command.DoneAsync("second-factor", "codes", "--as", "marrow", "--json"));
        var other = new CodeDevice(offered.RootElement.GetProperty("key").GetString().ShouldNotBeNull());
        (await use.Command.RunAsync("second-factor", "codes", "--shown", "000000", "--as", "marrow")).Error.ShouldContain(
            "That is not what the device should show now."
        );
        using var again = JsonDocument.Parse(
            await use.Command.DoneAsync("second-factor", "codes", "--shown", other.Shows(DateTimeOffset.UtcNow), "--as", "marrow", "--json")
        );
        again.RootElement.GetProperty("recoveryCodes").GetArrayLength().ShouldBe(10);
        await use.Command.DoneAsync("second-factor", "end-codes", "--as", "marrow");
        (await use.Command.RunAsync("second-factor", "end-codes", "--as", "marrow")).Error.ShouldContain("You have no one-time codes.");
        (await use.Command.RunAsync("second-factor", "end-passkey", "abc", "--as", "marrow")).Error.ShouldContain(
            "You have no passkey 'abc'"
        );
    }
}
