using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Running;
using Nailcrow.Running.Fire;

namespace Nailcrow.Service.Tests;

/// <summary>The network between one node and the database carries nothing any more, and neither of both is told.</summary>
[Takes(60)]
public sealed class DeadLineTests
{
    private const int Writers = 6;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_node_whose_line_goes_dead_in_the_middle_of_writing_holds_up_the_others_for_moments_only_and_takes_part_again_afterwards()
    {
        await using var postgres = await RunningPostgres.StartAsync();
        var database = await postgres.NewDatabaseAsync();
        using var line = new FrozenLine(database);
        await using var well = await StartAsync(database);
        await using var cutOff = await StartAsync(line.Database);
        await well.FillAsync();
        var doors = new Doors([well, cutOff]);
        using var enough = new CancellationTokenSource();
        var watching = doors.WatchAsync(enough.Token);
        var ilka = await well.SignInAsync("ilka");
        var token = (
            await new NailcrowClient(well.Http(), TimeProvider.System).SignInAsync("ilka", RunningService.Password, Ct)
        ).AccessToken;
        var writers = new List<Writer>();
        for (var i = 0; i < Writers; i++)
            writers.Add(new(doors, (await ilka.ReportAsync(new FaultAsk("FSC-0203", $"Lamp {i} off"), Ct)).Ticket, token));
        var writing = Task.WhenAll(writers.Select(w => w.WriteAsync(enough.Token, Ct)));
        int Written() => writers.Sum(w => w.Acknowledged.Count);
        await Soon.IsAsync(() => Task.FromResult(Written() > 20 * Writers), Ct); // both are busy

        line.Freeze();
        await Soon.IsAsync(async () => !await IsReadyAsync(cutOff), Ct);
        var then = Written();
        await Soon.IsAsync(
            () => Task.FromResult(writers.TrueForAll(w => w.Acknowledged.Count > 30) && Written() > then + 20 * Writers),
            Ct
        );
        line.Thaw();
        await Soon.IsAsync(() => IsReadyAsync(cutOff), Ct);
        var there = await cutOff.SignInAsync("ilka");
        await there.WriteAsync(writers[0].Ticket, new Core.Tickets.NoteWritten("Over the line that was dead"), Ct);

        await enough.CancelAsync();
        await writing;
        await watching;
        foreach (var writer in writers)
        {
            var kept = (await ilka.JournalAsync(writer.Ticket, 0, Ct)).Entries.Select(e => e.Id).ToList();
            kept.ShouldBeUnique();
            writer.Acknowledged.Take(kept.Count - 1).ShouldBeSubsetOf(kept);
        }
        (await (await cutOff.SignInAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    private static async Task<bool> IsReadyAsync(RunningService node)
    {
        using var http = node.Http();
        using var answer = await http.GetAsync("health/ready", Ct);
        return answer.IsSuccessStatusCode;
    }

    private static Task<RunningService> StartAsync(string database) =>
        RunningService.StartAsync(assembly: Built.Service, further: ["--Nailcrow:Database", database, "--Nailcrow:PasswordRounds", "1000"]);
}
