using System.Diagnostics;

namespace Nailcrow.Running;

/// <summary>
/// A PostgreSQL for all tests of a process, thrown away with it: <c>tools/postgres.sh</c> ends when its standard input does, which it also
/// does where the process is killed. What a test keeps in a folder when the file is tested is a database of its own here, and the folder
/// says which.
/// </summary>
internal static class PostgresServer
{
    // What a test leaves open goes soon: hundreds of them have a pool each.
    private const string Pools = "Connection Idle Lifetime=5;Connection Pruning Interval=1";

    /// <summary>Whether the tests are to run on PostgreSQL; where nothing is said, they run on the file.</summary>
    public static bool IsTested { get; } = Environment.GetEnvironmentVariable("NAILCROW_TESTED_ON") == "postgres";

    private static readonly Lazy<Task<string>> One = new(StartAsync);
    private static int _made;

    /// <summary>A database of its own, empty or as another.</summary>
    /// <returns>How it is reached.</returns>
    public static async Task<string> NewDatabaseAsync(string template = "template0")
    {
        var name = $"nailcrow_{Environment.ProcessId}_{Interlocked.Increment(ref _made)}";
        await RunAsync("createdb", "-T", template, name);
        return $"{await One.Value};Database={name};{Pools}";
    }

    /// <summary>The setting that names the database of a folder, which is made where the folder has none; nothing where the file is tested.</summary>
    public static async Task<string[]> SettingAsync(string folder)
    {
        if (!IsTested)
            return [];
        if (!File.Exists(Says(folder)))
            await File.WriteAllTextAsync(Says(folder), await NewDatabaseAsync());
        return ["--Nailcrow:Database", await File.ReadAllTextAsync(Says(folder))];
    }

    /// <summary>A copy of the database that a folder says, for a copy of that folder.</summary>
    public static async Task CopyAsync(string from, string to)
    {
        if (IsTested)
            await File.WriteAllTextAsync(Says(to), await NewDatabaseAsync(NameOf(await File.ReadAllTextAsync(Says(from)))));
    }

    /// <summary>The database of a folder goes with it.</summary>
    public static async Task DropAsync(string folder)
    {
        if (IsTested && File.Exists(Says(folder)))
            await RunAsync("dropdb", "--force", NameOf(await File.ReadAllTextAsync(Says(folder))));
    }

    private static string Says(string folder) => Path.Combine(folder, "postgres.txt");

    private static string NameOf(string server) => Part(server, "Database");

    private static string Part(string server, string which) => server.Split(';').Select(p => p.Split('=', 2)).First(p => p[0] == which)[1];

    private static async Task RunAsync(string command, params string[] words)
    {
        var server = await One.Value;
        var start = new ProcessStartInfo(Path.Combine(Binaries(), command)) { RedirectStandardError = true };
        string[] all = ["-h", Part(server, "Host"), "-p", Part(server, "Port"), "-U", Part(server, "Username"), .. words];
        foreach (var word in all)
            start.ArgumentList.Add(word);
        using var process = Process.Start(start) ?? throw new InvalidOperationException($"{command} did not start.");
        var said = await process.StandardError.ReadToEndAsync();
        await process.WaitForExitAsync();
        if (process.ExitCode != 0)
            throw new InvalidOperationException(said);
    }

    private static string Binaries() =>
        Directory.EnumerateDirectories("/usr/lib/postgresql").Select(version => Path.Combine(version, "bin")).Max()
        ?? throw new InvalidOperationException("PostgreSQL is not installed; on Debian: apt-get install postgresql.");

    private static async Task<string> StartAsync()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-postgres-");
        if (!OperatingSystem.IsWindows()) // the server has a user of its own
            File.SetUnixFileMode(folder.FullName, (UnixFileMode)0b111_101_101);
        var start = new ProcessStartInfo(Path.Combine(Root(), "tools", "postgres.sh"))
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            ArgumentList = { folder.FullName, "fsync=off", "full_page_writes=off", "max_connections=400", "max_wal_size=256MB" },
        };
        var server = Process.Start(start) ?? throw new InvalidOperationException("tools/postgres.sh did not start.");
        AppDomain.CurrentDomain.ProcessExit += (_, _) =>
        {
            server.StandardInput.Close();
            server.WaitForExit(TimeSpan.FromSeconds(10));
            folder.Delete(recursive: true);
        };
        return await server.StandardOutput.ReadLineAsync() ?? throw new InvalidOperationException("PostgreSQL did not start; see above.");
    }

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Nailcrow.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new InvalidOperationException("Nailcrow.slnx is nowhere above.");
    }
}
