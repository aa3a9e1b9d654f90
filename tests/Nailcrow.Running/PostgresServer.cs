namespace Nailcrow.Running;

/// <summary>
/// Where PostgreSQL is what is tested: one server for all tests of a process. What a test keeps in a folder when the file is tested is a
/// database of its own there, and the folder says which.
/// </summary>
internal static class PostgresServer
{
    /// <summary>Whether the tests are to run on PostgreSQL; where nothing is said, they run on the file.</summary>
    public static bool IsTested { get; } = Environment.GetEnvironmentVariable("NAILCROW_TESTED_ON") == "postgres";

    /// <summary>Whether the tests run on the file as well as on PostgreSQL, one after the other; this run is one of both.</summary>
    public static bool IsTestedInTurn { get; } = Environment.GetEnvironmentVariable("NAILCROW_TESTED_ON_BOTH") == "1";

    private static readonly Lazy<Task<RunningPostgres>> One = new(RunningPostgres.StartAsync);

    /// <summary>A database of its own.</summary>
    /// <returns>How it is reached.</returns>
    public static async Task<string> NewDatabaseAsync() => await (await One.Value).NewDatabaseAsync();

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
            await File.WriteAllTextAsync(Says(to), await (await One.Value).NewDatabaseAsync(await NameAsync(from)));
    }

    /// <summary>The database of a folder goes with it.</summary>
    public static async Task DropAsync(string folder)
    {
        if (IsTested && File.Exists(Says(folder)))
            await (await One.Value).DropAsync(await NameAsync(folder));
    }

    private static string Says(string folder) => Path.Combine(folder, "postgres.txt");

    private static async Task<string> NameAsync(string folder) =>
        RunningPostgres.Part(await File.ReadAllTextAsync(Says(folder)), "Database");
}
