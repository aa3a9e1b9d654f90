using System.Diagnostics;

namespace Nailcrow.Running;

/// <summary>
/// A PostgreSQL of its own, thrown away with whoever started it: <c>tools/postgres.sh</c> ends when its standard input does, which it also
/// does where a process is killed.
/// </summary>
public sealed class RunningPostgres : IAsyncDisposable
{
    // What a test leaves open goes soon: hundreds of them have a pool each.
    private const string Pools = "Connection Idle Lifetime=5;Connection Pruning Interval=1";

    private static readonly string[] Settings = ["max_connections=400", "max_wal_size=256MB"];

    private readonly string _folder;
    private readonly bool _durable;
    private Process? _process;
    private string _server = "";
    private int _made;

    private RunningPostgres(string folder, bool durable) => (_folder, _durable) = (folder, durable);

    public static Task<RunningPostgres> StartAsync() => StartAsync(durable: false);

    /// <param name="durable">What it says is written is on the disk, as in use; a test that throws it away has no need of that.</param>
    /// <param name="further">Settings of the server's own, as name=value.</param>
    public static async Task<RunningPostgres> StartAsync(bool durable, params string[] further)
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-postgres-").FullName;
        if (!OperatingSystem.IsWindows()) // the server has a user of its own
            File.SetUnixFileMode(folder, (UnixFileMode)0b111_101_101);
        var started = new RunningPostgres(folder, durable);
        await started.BeginAsync(further);
        AppDomain.CurrentDomain.ProcessExit += (_, _) => started.ThrowAway();
        return started;
    }

    /// <summary>A database of its own, empty or as another that nobody has open.</summary>
    /// <returns>How it is reached.</returns>
    public async Task<string> NewDatabaseAsync(string template = "template0")
    {
        var name = $"nailcrow_{Interlocked.Increment(ref _made)}";
        await RunAsync("createdb", "-T", template, name);
        return $"{_server};Database={name};{Pools}";
    }

    /// <summary>What it keeps on the disk, its log among it.</summary>
    public string DataFolder => Path.Combine(_folder, "data");

    public Task DropAsync(string database) => RunAsync("dropdb", "--force", database);

    /// <summary>It goes down as an administrator has it go down, and cuts who is connected.</summary>
    public async Task StopAsync()
    {
        if (_process is not { } process)
            return;
        process.StandardInput.Close();
        await process.WaitForExitAsync();
        process.Dispose();
        _process = null;
    }

    /// <summary>It comes up again where it was.</summary>
    public Task StartAgainAsync() => BeginAsync([$"port={Part(_server, "Port")}"]);

    public static string Part(string server, string which) => server.Split(';').Select(p => p.Split('=', 2)).First(p => p[0] == which)[1];

    public async ValueTask DisposeAsync()
    {
        if (ThrowAway() is not { } process)
            return;
        await process.WaitForExitAsync();
        process.Dispose();
    }

    private async Task BeginAsync(string[] further)
    {
        var start = new ProcessStartInfo(Path.Combine(Repository.Root, "tools", "postgres.sh"))
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
        };
        string[] notKept = _durable ? [] : ["fsync=off", "full_page_writes=off"];
        foreach (var word in (string[])[_folder, .. Settings, .. notKept, .. further])
            start.ArgumentList.Add(word);
        _process = Process.Start(start) ?? throw new InvalidOperationException("tools/postgres.sh did not start.");
        _server =
            await _process.StandardOutput.ReadLineAsync() ?? throw new InvalidOperationException("PostgreSQL did not start; see above.");
    }

    /// <summary>
    /// It goes, and its folder with it, by itself: hundreds of databases take a slow disk longer to remove than a test program that has
    /// ended is waited for.
    /// </summary>
    /// <returns>What there is to wait for; null where it has gone before.</returns>
    private Process? ThrowAway()
    {
        if (_process is not { } process)
        {
            if (Directory.Exists(_folder)) // it was stopped before, and not begun again
                Directory.Delete(_folder, recursive: true);
            return null;
        }
        _process = null;
        try
        {
            process.StandardInput.WriteLine("thrown away");
            process.StandardInput.Close();
        }
        catch (IOException)
        {
            // It has ended already.
        }
        return process;
    }

    /// <summary>A question in its own words.</summary>
    /// <returns>The one value it answers; empty where there is no row.</returns>
    public async Task<string> AskAsync(string database, string sql) =>
        (await RunAsync("psql", "-d", Part(database, "Database"), "-XAtc", sql)).Trim();

    private async Task<string> RunAsync(string command, params string[] words)
    {
        var start = new ProcessStartInfo(Path.Combine(Binaries(), command)) { RedirectStandardError = true, RedirectStandardOutput = true };
        string[] where = ["-h", Part(_server, "Host"), "-p", Part(_server, "Port"), "-U", Part(_server, "Username")];
        foreach (var word in (string[])[.. where, .. words])
            start.ArgumentList.Add(word);
        using var process = Process.Start(start) ?? throw new InvalidOperationException($"{command} did not start.");
        var (answer, said) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        return process.ExitCode == 0 ? await answer : throw new InvalidOperationException(await said);
    }

    private static string Binaries() =>
        Directory.EnumerateDirectories("/usr/lib/postgresql").Select(version => Path.Combine(version, "bin")).Max()
        ?? throw new InvalidOperationException("PostgreSQL is not installed; on Debian: apt-get install postgresql.");
}
