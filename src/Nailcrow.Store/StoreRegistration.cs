using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Appliances.Csv;
using Nailcrow.Store.Intake;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;
using Nailcrow.Store.Procedures;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Returns.Supplies;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;
using Nailcrow.Store.Tickets.Lists;
using Npgsql;

namespace Nailcrow.Store;

public static class StoreRegistration
{
    /// <summary>Keeps everything in one SQLite file, made if it is not there; or on a PostgreSQL.</summary>
    /// <param name="file">The file; beside it lie seals and keys, wherever the record is.</param>
    /// <param name="server">How the PostgreSQL is reached, as "Host=...;Database=..."; null for the file.</param>
    /// <param name="clockMayBeOff">How far this node's clock may be from the server's before it takes no part.</param>
    public static IServiceCollection AddNailcrowStore(
        this IServiceCollection services,
        string file,
        string? server = null,
        TimeSpan? clockMayBeOff = null
    ) =>
        (server is null ? services.AddOnFile(file) : services.AddOnServer(NoticingTheEnd(server), clockMayBeOff))
            .AddScoped<NailcrowDb>(s => s.GetRequiredService<IDbContextFactory<NailcrowDb>>().CreateDbContext())
            .AddSingleton(new SealPlaces(file + ".seals", file + ".keys"))
            .AddBooks();

    /// <summary>
    /// Has the code compiled that every context needs, on another core, while the rest of a service is put together: the model, EF's own
    /// services and opening a connection are a third of a start. Nothing of the record is touched.
    /// </summary>
    /// <param name="server">As for <see cref="AddNailcrowStore"/>.</param>
    public static void MakeReadyBeside(string? server) =>
        _ = Task.Run(async () =>
        {
            await using NailcrowDb db = server is null
                ? new SqliteNailcrowDb(OnSqlite(new DbContextOptionsBuilder<SqliteNailcrowDb>(), ":memory:").Options)
                : new PostgresNailcrowDb(OnPostgres(new DbContextOptionsBuilder<PostgresNailcrowDb>(), server).Options);
            _ = (db.Model, db.Database.GetMigrations().Count());
            if (server is null)
                await Asking.NumberAsync(db, "SELECT 1", CancellationToken.None);
        });

    private static IServiceCollection AddOnFile(this IServiceCollection services, string file) =>
        services
            .AddPooledDbContextFactory<SqliteNailcrowDb>(options => OnSqlite(options, file))
            .AddSingleton<IDbContextFactory<NailcrowDb>, Of<SqliteNailcrowDb>>()
            .AddSingleton(new DatabaseFile(file))
            .AddSingleton(_ => FileInUse.Hold(file))
            .AddSingleton<ILeases, AllOurs>()
            .AddSingleton<SealKeyPlace, SealKeyInFolder>();

    private static IServiceCollection AddOnServer(this IServiceCollection services, string server, TimeSpan? clockMayBeOff) =>
        services
            .AddPooledDbContextFactory<PostgresNailcrowDb>(options => OnPostgres(options, server))
            .AddSingleton<IDbContextFactory<NailcrowDb>, Of<PostgresNailcrowDb>>()
            .AddSingleton(new NewsLine(server))
            .AddHostedService<OtherNodesNews>()
            .AddSingleton<SharedKeys>()
            .AddSingleton<SealKeyPlace, SealKeyOfNodes>()
            .AddSingleton(s => new NodeClock(s.GetRequiredService<TimeProvider>(), clockMayBeOff ?? NodeClock.UsuallyAllowed))
            .AddSingleton<LeasesOnServer>()
            .AddSingleton<ILeases>(s => s.GetRequiredService<LeasesOnServer>())
            .AddHostedService(s => s.GetRequiredService<LeasesOnServer>());

    private static IServiceCollection AddBooks(this IServiceCollection services) =>
        services
            .AddSingleton<OtherReleases>()
            .AddSingleton<TicketJournal>()
            .AddSingleton<JournalNews>()
            .AddSingleton<TicketLines>()
            .AddSingleton<JournalCheck>()
            .AddSingleton(s => new Seals(
                s.GetRequiredService<IDbContextFactory<NailcrowDb>>(),
                s.GetRequiredService<SealPlaces>(),
                s.GetRequiredService<SealKeyPlace>(),
                s.GetRequiredService<TimeProvider>()
            ))
            .AddSingleton<BackupFile>()
            .AddSingleton<Projections>()
            .AddSingleton<ReferenceBook>()
            .AddSingleton<ReferenceChanging>()
            .AddSingleton<MachineAccesses>()
            .AddSingleton<IntakeRules>()
            .AddSingleton<DriveModels>()
            .AddSingleton<Warranties>()
            .AddSingleton<Drives>()
            .AddSingleton<LedgerBook>()
            .AddSingleton<DepotNames>()
            .AddSingleton<SupplyBook>()
            .AddSingleton<Outbox>()
            .AddSingleton<Partners>()
            .AddSingleton<CsvImport>()
            .AddSingleton<CsvExport>()
            .AddSingleton<IntakeLog>()
            .AddSingleton<EventSenders>()
            .AddSingleton<KeptSecrets>()
            .AddSingleton<ProcedureVersions>()
            .AddSingleton<StepTimes>()
            .AddSingleton<Photos>()
            .AddSingleton<PicturePeriods>()
            .AddSingleton<PeopleBook>()
            .AddSingleton<PeopleElsewhere>()
            .AddSingleton<SecondFactors>()
            .AddSingleton<SignInLetters>()
            .AddSingleton<AnsweredOnce>()
            .AddSingleton<Sessions>()
            .AddSingleton<ScriptKeys>()
            .AddSingleton<SecurityLog>()
            .AddSingleton<Database>();

    // Longer than any of us holds the file, and shorter than a person waits for an answer.
    private const int SecondsInTurn = 10;

    internal static T OnSqlite<T>(T options, string file)
        where T : DbContextOptionsBuilder
    {
        // Connections wait their turn rather than fail: a backup or a long list may hold the file for a moment.
        // A file is made by Database.MigrateAsync and nowhere else: one that is gone must not come back empty.
        var connection = new SqliteConnectionStringBuilder
        {
            DataSource = file,
            DefaultTimeout = SecondsInTurn,
            ForeignKeys = true,
            Mode = SqliteOpenMode.ReadWrite,
        };
        options
            .UseSqlite(connection.ToString())
            .UseSnakeCaseNamingConvention()
            .AddInterceptors(new PoolsFollowTheFile(new(file)), WaitsAtTheLock.One);
        return options;
    }

    /// <summary>What is wrong with how a PostgreSQL is to be reached, as a sentence; null where it can be tried.</summary>
    public static string? ProblemOf(string server)
    {
        try
        {
            return new NpgsqlConnectionStringBuilder(server) is { Host.Length: > 0, Database.Length: > 0 }
                ? null
                : "it says no Host or no Database.";
        }
        catch (Exception e) when (e is ArgumentException or FormatException or KeyNotFoundException)
        {
            return e.Message;
        }
    }

    internal static T OnPostgres<T>(T options, string server)
        where T : DbContextOptionsBuilder
    {
        options.UseNpgsql(server).UseSnakeCaseNamingConvention().AddInterceptors(InAnyCase.One, CutLines.One);
        return options;
    }

    // As PostgreSQL names them. A node that is cut off without a word lets go of what it holds in under a minute, not in hours.
    private const string SessionSettings =
        "-c idle_in_transaction_session_timeout=60s -c tcp_keepalives_idle=10 -c tcp_keepalives_interval=5 -c tcp_keepalives_count=3 "
        + "-c tcp_user_timeout=25000";

    /// <summary>Both ends find out when the other is gone, unless whoever set it up says how.</summary>
    private static string NoticingTheEnd(string server)
    {
        if (ProblemOf(server) is not null)
            return server; // told at the start, where settings are looked at
        var line = new NpgsqlConnectionStringBuilder(server);
        line.Options ??= SessionSettings;
        if (line.TcpKeepAliveTime == 0)
            (line.TcpKeepAlive, line.TcpKeepAliveTime, line.TcpKeepAliveInterval) = (true, 10_000, 5_000);
        return line.ToString();
    }

    private sealed class Of<TDb>(IDbContextFactory<TDb> inner) : IDbContextFactory<NailcrowDb>
        where TDb : NailcrowDb
    {
        public NailcrowDb CreateDbContext() => inner.CreateDbContext();
    }
}
