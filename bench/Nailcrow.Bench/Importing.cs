using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>A hundred thousand appliances and two million drives from lists; then a drive by the end of its serial.</summary>
internal static class Importing
{
    private const int Appliances = 100_000;
    private const int DrivesEach = 20;
    private const int Rounds = 400;

    public static async Task MeasureAsync()
    {
        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service);
        var lioth = Patient(service, await service.SignInAsync("lioth"));
        var folder = Directory.CreateTempSubdirectory("nailcrow-lists-").FullName;
        var (appliances, drives) = (Path.Combine(folder, "appliances.csv"), Path.Combine(folder, "drives.csv"));
        Write(appliances, drives);
        using var watching = new CancellationTokenSource();
        var most = MostMemoryAsync(service.Process.Id, watching.Token);
        var clock = Stopwatch.StartNew();
        foreach (var (kind, file) in new[] { ("appliances", appliances), ("drives", drives) })
        {
            await using var stream = File.OpenRead(file);
            var done = await (await lioth).ImportAsync(kind, stream, dryRun: false, all: false, CancellationToken.None);
            if (done.Bad > 0)
                throw new InvalidOperationException($"{kind}: line {done.Problems[0].Line}: {done.Problems[0].Reason}");
        }
        Told.Plain($"{Appliances:N0} appliances, {Appliances * DrivesEach:N0} drives", clock.Elapsed.TotalSeconds, "s", "");
        await watching.CancelAsync();
        Told.Plain("memory while importing, at most", await most / 1024.0 / 1024, "MB", "under 500");
        await FindAsync(service);
    }

    private static async Task FindAsync(RunningService service)
    {
        var ilka = await service.SignInAsync("ilka");
        using var bare = new SqliteConnection($"Data Source={service.DatabaseFile};Mode=ReadOnly");
        bare.Open();
        using var look = bare.CreateCommand();
        look.CommandText =
            "SELECT serial, model, bytes, asset, bay, depot, hours, used_in FROM drive WHERE serial_reversed >= "
            + "$from AND serial_reversed < $to ORDER BY serial_reversed LIMIT 50";
        var (from, to) = (look.Parameters.Add("$from", SqliteType.Text), look.Parameters.Add("$to", SqliteType.Text));
        // What the interface costs before it asks anything: the same client, the same way, one row by its key.
        var (ours, floor, web) = (new List<double>(), new List<double>(), new List<double>());
        var random = new Random(7);
        for (var i = 0; i < Rounds; i++)
        {
            var end = Serial(random.Next(Appliances * DrivesEach))[^5..];
            var clock = Stopwatch.StartNew();
            await ilka.FindDrivesAsync(end, CancellationToken.None);
            ours.Add(clock.Elapsed.TotalMilliseconds);
            clock.Restart();
            from.Value = new string([.. end.Reverse()]);
            to.Value = from.Value + "\uffff";
            using (var rows = look.ExecuteReader())
                while (rows.Read())
                    rows.GetString(0);
            floor.Add(clock.Elapsed.TotalMilliseconds);
            clock.Restart();
            await ilka.MeAsync(CancellationToken.None);
            web.Add(clock.Elapsed.TotalMilliseconds);
        }
        var (call, lookup) = (Told.Median(web.Skip(Rounds / 4)), Told.Median(floor.Skip(Rounds / 4)));
        Told.Line("a drive by its last five characters", Told.Median(ours.Skip(Rounds / 4)), call + lookup, "ms", "at most 2");
        Told.Plain("  of that floor, the bare lookup", lookup, "ms", "");
    }

    private static string Serial(int n) => $"P8{(n * 2_654_435_761L % 99_999_999_977L):00000000000}";

    private static void Write(string appliances, string drives)
    {
        using var a = new StreamWriter(appliances);
        using var d = new StreamWriter(drives);
        a.WriteLine("asset,serial,model,site,location,arrays");
        d.WriteLine("serial,model,size,asset,bay");
        for (var i = 0; i < Appliances; i++)
        {
            a.WriteLine($"IMP-{i:000000},S{i},brackmere-b24,Corrin Deep Archive,\"Hall, rack {i % 90}\",flash:raid6:20:2TB");
            for (var k = 0; k < DrivesEach; k++)
                d.WriteLine($"{Serial(i * DrivesEach + k)},Cindral F2-S,1920383410176,IMP-{i:000000},{k}");
        }
    }

    /// <summary>An import takes longer than a client usually waits.</summary>
    private static async Task<NailcrowClient> Patient(RunningService service, NailcrowClient _)
    {
        var client = new NailcrowClient(
            new HttpClient { BaseAddress = service.Address, Timeout = TimeSpan.FromMinutes(10) },
            TimeProvider.System
        );
        client.UseToken((await client.SignInAsync("lioth", RunningService.Password, CancellationToken.None)).AccessToken);
        return client;
    }

    private static async Task<long> MostMemoryAsync(int process, CancellationToken ct)
    {
        var most = 0L;
        while (!ct.IsCancellationRequested)
        {
            most = Math.Max(most, Process.GetProcessById(process).WorkingSet64);
            await Task.WhenAny(Task.Delay(50, ct));
        }
        return most;
    }
}
