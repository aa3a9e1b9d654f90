using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Running;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;
using Npgsql;

namespace Nailcrow.Store.Tests;

/// <summary>A store of its own: a file, or a database on a server where PostgreSQL is tested.</summary>
public sealed class StoreInUse : IAsyncLifetime
{
    /// <summary>False where the test brings the tables to an older form first.</summary>
    public bool Migrated { get; init; } = true;

    /// <summary>What is said beside of how its server is reached.</summary>
    public string Reached { get; init; } = "";

    /// <summary>What time it is, for as long as the store is in use; null where time goes on.</summary>
    public DateTimeOffset? At { get; init; }

    public static readonly Actor Ilka = new("ilka", [Role.Engineer, Role.Stores, Role.Dispatcher]);

    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("nailcrow-store-");
    private ServiceProvider? _services;

    /// <summary>How its server is reached; null where it is a file.</summary>
    public string? Server { get; private set; }

    /// <summary>What is about the file itself has nothing to say of a server.</summary>
    public static void IsAboutTheFile() => Assert.SkipWhen(PostgresServer.IsTested, "It is about the file.");

    public string File => Path.Combine(_folder.FullName, "nailcrow.db");

    public TicketJournal Journal => Get<TicketJournal>();

    public T Get<T>()
        where T : notnull => (_services ?? throw new InvalidOperationException("Not started yet.")).GetRequiredService<T>();

    public async ValueTask InitializeAsync()
    {
        if (PostgresServer.IsTested)
            Server ??= await PostgresServer.NewDatabaseAsync() + Reached;
        _services = new ServiceCollection()
            .AddSingleton(At is { } at ? new Stopped(at) : TimeProvider.System)
            .AddLogging()
            .AddNailcrowStore(File, Server, At is null ? null : TimeSpan.FromDays(100_000)) // a clock that stands is not held against the server's
            .AddSingleton<ISecretKeeper, InClear>()
            .BuildServiceProvider();
        OwnFiles.Keep(File);
        if (Migrated)
            await Get<Database>().MigrateAsync(TestContext.Current.CancellationToken);
    }

    /// <summary>The tables as an earlier release left them.</summary>
    public async Task BroughtToAsync(string migration)
    {
        await using var db = await Get<IDbContextFactory<NailcrowDb>>().CreateDbContextAsync(TestContext.Current.CancellationToken);
        await db.GetService<IMigrator>().MigrateAsync(migration, TestContext.Current.CancellationToken);
    }

    public static Intent Intent(EntryBody body, Guid? id = null) => new(id ?? Guid.CreateVersion7(), DateTimeOffset.UtcNow, 0, Ilka, body);

    public static FaultReported Fault(string bay = "2", string serial = "P8BADD0517", string asset = "FSC-1") =>
        new(asset, "BRK12-0042", "Brackmere B12", "Corrin Trust", "Corrin", "Hall", JobKind.Fault, "Amber lamp", bay, serial);

    public async Task<long> OpenAsync(FaultReported? fault = null) =>
        (await KeptAsync(Journal.OpenAsync(Intent(fault ?? Fault()), default))).Entry.Ticket;

    public Task<Written.Kept> WriteAsync(long ticket, EntryBody body) => KeptAsync(Journal.WriteAsync(ticket, Intent(body), default));

    public async Task TakePictureAsync(long ticket, byte[] bytes)
    {
        var id = Guid.CreateVersion7();
        var taken = new PhotoTaken(
            id,
            Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes)),
            "image/png",
            bytes.Length
        );
        await KeptAsync(Journal.WriteAsync(ticket, Intent(taken, id) with { Picture = new("image/png", bytes) }, default));
    }

    /// <summary>Everything held against itself, and against a seal where one is given.</summary>
    public async Task<(Checked Over, IReadOnlyList<Trouble> Troubles)> VerifyAsync(string? seal = null)
    {
        var troubles = new List<Trouble>();
        var against = seal is null ? null : ((Parsed<Core.Tickets.Journal.Sealing.ReadSeal>.Ok)Get<Seals>().Read(seal)).Value.Seal;
        var over = await Get<JournalCheck>()
            .RunAsync(against, readToo: true, troubles.Add, _ => { }, TestContext.Current.CancellationToken);
        return (over, troubles);
    }

    /// <summary>A ticket as it is read after a restart: nothing of it is remembered.</summary>
    public async Task<TicketRecord> ReadAfreshAsync(long ticket)
    {
        await using var other = new ServiceCollection().NodeOn(this);
        return await other.Journal().ReadAsync(ticket, TestContext.Current.CancellationToken)
            ?? throw new InvalidOperationException($"{ticket} is not there.");
    }

    /// <summary>SQL past everything we wrote, as somebody with the file and bad intentions has it.</summary>
    public void Tamper(string sql)
    {
        using var connection = Open();
        using var command = connection.CreateCommand();
        command.CommandText = Server is null ? sql : PostgresSql.Of(sql);
        command.ExecuteNonQuery();
    }

    private DbConnection Open()
    {
        DbConnection connection = Server is null ? new SqliteConnection($"Data Source={File}") : new NpgsqlConnection(Server);
        connection.Open();
        return connection;
    }

    public string Dump(string table)
    {
        using var connection = Open();
        using var command = connection.CreateCommand();
        command.CommandText = $"SELECT * FROM {table} ORDER BY 1, 2";
        using var rows = command.ExecuteReader();
        var lines = new List<string>();
        while (rows.Read())
            // a migration may leave columns in another order
            lines.Add(string.Join('|', Enumerable.Range(0, rows.FieldCount).OrderBy(rows.GetName).Select(rows.GetValue)));
        return string.Join('\n', lines);
    }

    public async ValueTask DisposeAsync()
    {
        if (_services is not null)
            await _services.DisposeAsync();
        SqliteConnection.ClearAllPools();
        _folder.Delete(recursive: true);
    }

    private sealed class InClear : ISecretKeeper
    {
        public string Protect(string secret) => secret;

        public string? Open(string kept) => kept;
    }

    private static async Task<Written.Kept> KeptAsync(Task<Written> writing) => (await writing).ShouldBeOfType<Written.Kept>();
}

/// <summary>A clock that stands still.</summary>
internal sealed class Stopped(DateTimeOffset at) : TimeProvider
{
    public override DateTimeOffset GetUtcNow() => at;
}
