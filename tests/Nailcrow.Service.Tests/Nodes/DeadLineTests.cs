using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Running;
using Nailcrow.Running.Fire;

namespace Nailcrow.Service.Tests.Nodes;

/// <summary>The network between one node and the database carries nothing any more, and neither of both is told.</summary>
[Takes(120)]
public sealed class DeadLineTests
{
    private const int Writers = 6;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_node_whose_line_goes_dead_in_the_middle_of_writing_holds_up_the_others_for_moments_only_and_takes_part_again_afterwards()
    {
        await using var postgres = await ServerOfItsOwn.StartAsync();
        var database = await postgres.NewDatabaseAsync();
        using var line = new FrozenLine(database);
        await using var well = await StartAsync(database);
        await using var cutOff = await StartAsync(line.Database);

        await WriteWhileItIsDeadAsync(well, cutOff, Done(line.Freeze), Done(line.Thaw));

        static Func<Task> Done(Action what) =>
            () =>
            {
                what();
                return Task.CompletedTask;
            };
    }

    [Fact]
    public async Task The_same_holds_where_the_node_is_in_a_network_of_its_own_and_its_kernel_has_to_find_out()
    {
        using var network = await OwnNetwork.MakeAsync();
        Assert.SkipWhen(network is null, "Networks are made by root, with iproute2.");
        using var letIn = new LetIn();
        ServerOfItsOwn.OnceIsEnough();
        await using var postgres = await RunningPostgres.StartAsync(
            durable: false,
            $"listen_addresses=127.0.0.1,{network.DatabaseAddress}",
            $"hba_file={letIn.File}"
        );
        var database = await postgres.NewDatabaseAsync();
        await using var well = await StartAsync(database);
        await using var cutOff = await StartAsync(database.Replace("Host=127.0.0.1", $"Host={network.DatabaseAddress}"), network);

        await WriteWhileItIsDeadAsync(well, cutOff, network.CutAsync, network.MendAsync);
    }

    /// <summary>Who may come to the database: whoever is on this machine, and in networks of its own.</summary>
    private sealed class LetIn : IDisposable
    {
        public string File { get; } = Path.GetTempFileName();

        public LetIn()
        {
            System.IO.File.WriteAllText(
                File,
                $"local all all trust\nhost all all 127.0.0.1/32 trust\nhost all all {OwnNetwork.All} trust\n"
            );
            if (!OperatingSystem.IsWindows()) // the server has a user of its own
                System.IO.File.SetUnixFileMode(File, (UnixFileMode)0b110_100_100);
        }

        public void Dispose() => System.IO.File.Delete(File);
    }

    private static async Task WriteWhileItIsDeadAsync(RunningService well, RunningService cutOff, Func<Task> cut, Func<Task> mend)
    {
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

        await cut();
        await Soon.IsAsync(async () => !await IsReadyAsync(cutOff), Ct);
        var then = Written();
        await Soon.IsAsync(
            () => Task.FromResult(writers.TrueForAll(w => w.Acknowledged.Count > 30) && Written() > then + 20 * Writers),
            Ct
        );
        await mend();
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

    private static Task<RunningService> StartAsync(string database, OwnNetwork? within = null) =>
        RunningService.StartAsync(
            assembly: Built.Service,
            further: ["--Nailcrow:Database", database, "--Nailcrow:PasswordRounds", "1000"],
            within: within
        );
}
