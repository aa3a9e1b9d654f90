using System.Text.RegularExpressions;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>A node is killed behind its proxy, or the line drops: what was done is done once, and nobody is told what is not so.</summary>
public sealed class LostAnswerTests(CommandInUse use) : IClassFixture<CommandInUse>, IAsyncLifetime
{
    private readonly LossyLine _line = new(use.Service.Address);

    private RunningCommand? _command;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private RunningCommand Command => _command ?? throw new InvalidOperationException("Not started yet.");

    public async ValueTask InitializeAsync()
    {
        _command = new(_line.Address);
        foreach (var person in new[] { "admin", "sefa", "ilka" })
            await Command.DoneAsync("sign-in", person);
    }

    public ValueTask DisposeAsync()
    {
        _command?.Dispose();
        _line.Dispose();
        return default;
    }

    private async Task<string> DoneThoughLostAsync(Loss how, params string[] typed)
    {
        _line.Loses(2, how);
        var said = await Command.DoneAsync(typed);
        _line.Lost.ShouldBe(2, string.Join(' ', typed));
        return said;
    }

    [Theory]
    [InlineData(Loss.Cut)]
    [InlineData(Loss.Half)]
    [InlineData(Loss.Gateway)]
    public async Task What_carries_an_id_of_its_own_is_done_once_and_what_is_read_is_read_though_two_answers_were_lost(Loss how)
    {
        var serial = $"LOST{how}01A".ToUpperInvariant();
        var reported = await DoneThoughLostAsync(how, "ticket", "report", "FSC-0107", $"Lost {how}", "--bay", $"{(int)how + 2}");
        var ticket = reported.Split(':')[0];
        await DoneThoughLostAsync(how, "ticket", "note", ticket, "The key is with the porter");
        await DoneThoughLostAsync(how, "snapshot", "take", ticket);
        await DoneThoughLostAsync(how, "light", "on", ticket);
        await DoneThoughLostAsync(
            how,
            ["stock", "receive", serial, "--depot", "Cellar", "--model", "Cindral C12T", "--size", "14TB", "--as", "sefa"]
        );

        (await DoneThoughLostAsync(how, "ticket", "show", ticket)).ShouldContain($"Lost {how}");
        var journal = await DoneThoughLostAsync(how, "ticket", "journal", ticket);
        foreach (var once in new[] { "fault-reported", "note-written", "snapshot-taken", "locator-switched" })
            journal.Split('\n').Count(line => line.Contains(once, StringComparison.Ordinal)).ShouldBe(1, $"{once}: {journal}");
        var line = await Command.DoneAsync("stock", "part", serial, "--as", "sefa");
        line.Split('\n').Count(l => l.Contains("UTC", StringComparison.Ordinal)).ShouldBe(1, line);
    }

    [Theory]
    [InlineData(Loss.Cut)]
    [InlineData(Loss.Half)]
    [InlineData(Loss.Gateway)]
    public async Task What_could_be_done_twice_is_not_sent_again_and_it_is_said_that_it_may_have_been_kept(Loss how)
    {
        var name = $"lost-{how}".ToLowerInvariant();
        string[] add = ["person", "add", name, "--full-name", $"Lost {how}", "--roles", "engineer", "--as", "admin"];
        _line.Loses(2, how);

        var ended = await Command.RunAsync(add);

        (ended.Code, _line.Lost).ShouldBe((3, 1), ended.All);
        ended.Error.ReplaceLineEndings(" ").ShouldContain("may have been kept");
        _line.Loses(0, how);
        (await Command.DoneAsync("person", "list", "--as", "admin")).ShouldContain($"Lost {how}");
    }

    [Theory]
    [InlineData(Loss.Cut)]
    [InlineData(Loss.Half)]
    [InlineData(Loss.Gateway)]
    public async Task A_picture_is_read_again_from_its_beginning_and_kept_once(Loss how)
    {
        var ilka = await use.Service.SignInAsync("ilka");
        var token = (
            await new NailcrowClient(use.Service.Http(), TimeProvider.System).SignInAsync("ilka", RunningService.Password, Ct)
        ).AccessToken;
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", $"Seen {how}"), Ct)).Ticket;
        using var http = new HttpClient { BaseAddress = _line.Address };
        var over = new NailcrowClient(http, TimeProvider.System);
        over.UseToken(token);
        var picture = await File.ReadAllBytesAsync(Path.Combine(Built.Root, "docs", "screenshots", "run-phone.png"), Ct);
        var id = Guid.CreateVersion7();
        _line.Loses(2, how);

        await over.KeepPhotoAsync(ticket, id, new MemoryStream(picture), null, null, Ct);

        _line.Lost.ShouldBe(2);
        (await ilka.TicketAsync(ticket, Ct)).Photos.ShouldHaveSingleItem().Id.ShouldBe(id);
    }

    [Fact]
    public async Task Who_looks_on_at_a_rebuild_outlives_a_service_that_is_started_anew()
    {
        await using var own = await RunningService.StartPeopledAsync();
        using var line = new LossyLine(own.Address);
        using var command = new RunningCommand(line.Address);
        await command.DoneAsync("sign-in", "ilka");
        var ticket = (await command.DoneAsync("ticket", "report", "FSC-0203", "Lamp of bay 5 is off")).Split(':')[0];
        await command.DoneAsync(
            "snapshot",
            "write",
            ticket,
            "--bay",
            "5=CDR12T0005,filling,good,catalogue",
            "--array",
            "catalogue=rebuilding"
        );
        await command.DoneAsync("rebuild", "read", ticket, "--percent", "12.5");
        var (looks, waits) = (new TaskCompletionSource(), new TaskCompletionSource());
        var watching = command.RunAnsweredAsync(
            new Regex("too early to tell|does not answer for now"),
            said =>
            {
                (said.Value.StartsWith("too", StringComparison.Ordinal) ? looks : waits).TrySetResult();
                return "";
            },
            "rebuild",
            "watch",
            ticket,
            "--every",
            "1"
        );
        await looks.Task.WaitAsync(Ct);

        line.To = new("http://127.0.0.1:9"); // nobody is behind it for a while
        await using var again = await own.StartsAnewAsync();
        await waits.Task.WaitAsync(Ct);
        line.To = again.Address;
        await command.DoneAsync("rebuild", "read", ticket, "--progress", "failed");
        var watched = await watching;

        watched.Code.ShouldBe(1, watched.All);
        watched.Error.ShouldContain("Pull nothing; call the lead.");
        watched.Output.ShouldContain("does not answer for now. It is asked again");
        watched.Output.ShouldContain("answers again.");
    }
}
