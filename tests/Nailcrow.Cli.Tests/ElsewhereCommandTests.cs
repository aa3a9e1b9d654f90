using System.Text.RegularExpressions;
using Nailcrow.Provider;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>Coming in by the firm's provider of sign-ins, from a terminal that has no browser.</summary>
public sealed partial class ElsewhereCommandTests : IAsyncLifetime
{
    private RunningProvider? _provider;
    private RunningService? _service;
    private RunningCommand? _command;

    [GeneratedRegex("Or open (?<at>\\S+), and")]
    private static partial Regex LinkShown { get; }

    [Fact]
    public async Task It_waits_until_somebody_has_looked_at_the_link_it_shows_and_is_in()
    {
        var (provider, command) = (_provider.ShouldNotBeNull(), _command.ShouldNotBeNull());
        provider.Who = new("s-1", "corrie", "Corrie Vane", null, "tide-crew");

        var come = await command.RunAnsweredAsync(LinkShown, Looked, "sign-in", "--elsewhere");
        come.Code.ShouldBe(0, come.All);
        come.Output.ReplaceLineEndings(" ").ShouldContain("in a browser, on any device, and type ");
        come.Output.ReplaceLineEndings(" ").ShouldContain("Signed in as Corrie Vane (corrie): engineer. Good for 12 hours.");
        (await command.DoneAsync("who")).ShouldStartWith("Corrie Vane (corrie): engineer");

        provider.Who = null;
        var no = await command.RunAnsweredAsync(LinkShown, Looked, "sign-in", "--elsewhere");
        (no.Code, no.Error.Trim()).ShouldBe((4, "Fenwright sign-in did not let you in, or you said no there."));
    }

    [Fact]
    public async Task Whom_it_means_is_said_once_in_a_browser_and_ended_by_oneself_or_who_looks_after_people()
    {
        var (provider, command) = (_provider.ShouldNotBeNull(), _command.ShouldNotBeNull());
        provider.Who = new("s-2", "ilka-there", "Ilka", null, "tide-crew");
        await command.DoneAsync("sign-in", "ilka");
        await command.DoneAsync("sign-in", "admin");

        var join = await command.DoneAsync("elsewhere", "join", "--as", "ilka");
        await SaysYesAsync(Regex.Match(join.ReplaceLineEndings(""), "http://\\S+").Value);
        (await command.RunAnsweredAsync(LinkShown, Looked, "sign-in", "--elsewhere")).Output.ShouldContain("(ilka)");
        (await command.DoneAsync("person", "list", "--as", "admin")).ShouldContain("yes, by Fenwright sign-in");
        (await command.DoneAsync("person", "elsewhere-end", "ilka", "--as", "admin")).ShouldBe(
            "ilka comes in by no provider of sign-ins any more.\n"
        );
        (await command.RunAsync("elsewhere", "end", "--as", "ilka")).Code.ShouldNotBe(0); // that sign-in is over
        await command.DoneAsync("sign-in", "ilka");
        (await command.RunAsync("elsewhere", "end", "--as", "ilka")).Error.Trim().ShouldBe("ilka comes in by no provider of sign-ins.");
    }

    [Theory]
    [InlineData("sign-in")]
    [InlineData("sign-in", "ilka", "--elsewhere")]
    public async Task Who_it_is_is_said_in_one_way(params string[] arguments)
    {
        var ended = await _command.ShouldNotBeNull().RunAsync(arguments);

        (ended.Code, ended.Error.ReplaceLineEndings(" ").Trim()).ShouldBe(
            (2, "Say who you are, as in 'nailcrow sign-in ilka', or '--elsewhere' and no name.")
        );
    }

    public async ValueTask InitializeAsync()
    {
        _provider = await RunningProvider.StartAsync();
        _service = await RunningService.StartPeopledAsync(further: _provider.Settings);
        await _provider.KnowsAsync(_service.Address);
        _command = new RunningCommand(_service.Address);
    }

    public async ValueTask DisposeAsync()
    {
        _command?.Dispose();
        if (_service is not null)
            await _service.DisposeAsync();
        if (_provider is not null)
            await _provider.DisposeAsync();
    }

    /// <summary>Somebody opens it on a telephone; the command is told nothing.</summary>
    private static string Looked(Match shown)
    {
        LookAsync(shown.Groups["at"].Value).GetAwaiter().GetResult();
        return "";
    }

    /// <summary>Somebody opens it where they are signed in with the provider, reads who would be whom, and says yes.</summary>
    private async Task SaysYesAsync(string at)
    {
        using var browser = new HttpClient();
        var page = await browser.GetStringAsync(at);
        var joining = Regex.Match(page, "name=\"joining\" value=\"([^\"]+)\"").Groups[1].Value;
        await browser.PostAsync(
            new Uri(_service.ShouldNotBeNull().Address, "api/sign-in/elsewhere/joined"),
            new FormUrlEncodedContent([new("joining", joining)])
        );
    }

    private static async Task LookAsync(string at)
    {
        using var telephone = new HttpClient();
        await telephone.GetAsync(at);
    }
}
