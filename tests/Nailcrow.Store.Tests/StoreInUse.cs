using Microsoft.Extensions.DependencyInjection;
using Microsoft.Data.Sqlite;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store.Tests;

/// <summary>A store on a file of its own.</summary>
public sealed class StoreInUse : IAsyncLifetime
{
    public static readonly Actor Ilka = new("ilka", [Role.Engineer, Role.Stores, Role.Dispatcher]);

    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("nailcrow-store-");
    private ServiceProvider? _services;

    public string File => Path.Combine(_folder.FullName, "nailcrow.db");

    public TicketJournal Journal => Get<TicketJournal>();

    public T Get<T>()
        where T : notnull => (_services ?? throw new InvalidOperationException("Not started yet.")).GetRequiredService<T>();

    public async ValueTask InitializeAsync()
    {
        _services = new ServiceCollection().AddSingleton(TimeProvider.System).AddLogging().AddNailcrowStore(File).BuildServiceProvider();
        await Get<Database>().MigrateAsync(TestContext.Current.CancellationToken);
    }

    public static Intent Intent(EntryBody body, Guid? id = null) => new(id ?? Guid.CreateVersion7(), DateTimeOffset.UtcNow, 0, Ilka, body);

    public static FaultReported Fault(string bay = "2", string serial = "P8BADD0517", string asset = "FSC-1") =>
        new(asset, "BRK12-0042", "Brackmere B12", "Corrin Trust", "Corrin", "Hall", JobKind.Fault, "Amber lamp", bay, serial);

    public async Task<long> OpenAsync(FaultReported? fault = null) => (await KeptAsync(Journal.OpenAsync(Intent(fault ?? Fault()), default))).Entry.Ticket;

    public Task<Written.Kept> WriteAsync(long ticket, EntryBody body) => KeptAsync(Journal.WriteAsync(ticket, Intent(body), default));

    /// <summary>SQL past everything we wrote, as somebody with the file and bad intentions has it.</summary>
    public void Tamper(string sql)
    {
        using var connection = new SqliteConnection($"Data Source={File}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    public string Dump(string table)
    {
        using var connection = new SqliteConnection($"Data Source={File}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = $"SELECT * FROM {table} ORDER BY 1, 2";
        using var rows = command.ExecuteReader();
        var lines = new List<string>();
        while (rows.Read())
            lines.Add(string.Join('|', Enumerable.Range(0, rows.FieldCount).OrderBy(rows.GetName).Select(rows.GetValue))); // a migration may leave columns in another order
        return string.Join('\n', lines);
    }

    public async ValueTask DisposeAsync()
    {
        if (_services is not null)
            await _services.DisposeAsync();
        SqliteConnection.ClearAllPools();
        _folder.Delete(recursive: true);
    }

    private static async Task<Written.Kept> KeptAsync(Task<Written> writing) => (await writing).ShouldBeOfType<Written.Kept>();
}
