using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Microsoft.EntityFrameworkCore.Migrations.Operations;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Tickets;
using Npgsql;

namespace Nailcrow.Store.Tests;

/// <summary>
/// The release before this one works beside it, and the one after will: tables are added to, and nothing is decided in words that one of
/// both cannot read.
/// </summary>
public sealed class OtherReleaseTests(StoreInUse store) : IClassFixture<StoreInUse>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    /// <summary>What a node that does not know of it would trip over; null where it would not.</summary>
    private static string? InTheWay(MigrationOperation change, IReadOnlyCollection<MigrationOperation> all) =>
        change switch
        {
            CreateTableOperation => null,
            AddColumnOperation { IsNullable: true } or AddColumnOperation { DefaultValue: not null } => null,
            AddColumnOperation { DefaultValueSql: not null } or AddColumnOperation { ComputedColumnSql: not null } => null,
            CreateIndexOperation { IsUnique: false } index when all.OfType<CreateTableOperation>().Any(t => t.Name == index.Table) => null,
            CreateIndexOperation index when index["Npgsql:CreatedConcurrently"] is true =>
                $"the index {index.Name} is made beside others: broken off it is left half made, and nodes that wait for the upgrade hold it up",
            CreateIndexOperation { IsUnique: false } index when MadeInSeconds.Contains(index.Name) => null,
            CreateIndexOperation { IsUnique: false } index =>
                $"the index {index.Name} keeps writers out while it is made: say that it takes seconds, or give its columns a table of their own",
            CreateIndexOperation index when all.OfType<CreateTableOperation>().Any(t => t.Name == index.Table) => null,
            _ => $"{change.GetType().Name.Replace("Operation", "", StringComparison.Ordinal)} is nothing that is only added",
        };

    // Of two million parts it is made in 2 s, in which whoever moves one waits.
    private static readonly string[] MadeInSeconds = ["ix_part_looks"];

    public static TheoryData<MigrationOperation, bool> Changes =>
        new()
        {
            {
                new CreateTableOperation { Name = "more" },
                true
            },
            {
                new AddColumnOperation
                {
                    Name = "more",
                    Table = "site",
                    IsNullable = true,
                },
                true
            },
            {
                new AddColumnOperation
                {
                    Name = "more",
                    Table = "site",
                    DefaultValue = 0,
                },
                true
            },
            {
                new AddColumnOperation { Name = "more", Table = "site" },
                false
            },
            {
                new DropColumnOperation { Name = "less", Table = "site" },
                false
            },
            {
                new RenameColumnOperation
                {
                    Name = "old",
                    NewName = "new",
                    Table = "site",
                },
                false
            },
            {
                new DropTableOperation { Name = "less" },
                false
            },
            {
                new CreateIndexOperation
                {
                    Name = "slow",
                    Table = "journal",
                    Columns = ["by"],
                },
                false
            },
            {
                Concurrent(
                    new()
                    {
                        Name = "ix_part_looks",
                        Table = "part",
                        Columns = ["looks"],
                    }
                ),
                false
            },
            {
                new CreateIndexOperation
                {
                    Name = "ix_part_looks",
                    Table = "part",
                    Columns = ["looks"],
                },
                true
            },
            {
                new SqlOperation { Sql = "UPDATE site SET name = ''" },
                false
            },
        };

    private static CreateIndexOperation Concurrent(CreateIndexOperation index)
    {
        index["Npgsql:CreatedConcurrently"] = true;
        return index;
    }

    [Theory, MemberData(nameof(Changes), DisableDiscoveryEnumeration = true)]
    public void What_is_added_is_told_from_what_is_in_the_way(MigrationOperation change, bool fits) =>
        (InTheWay(change, [change]) is null).ShouldBe(fits);

    // The same columns by the same names, read and written by the same words; that the release before works on with it is held by
    // NodesUpgradedTests, in which it writes beside this one from before the change to after it.
    private static readonly string[] LaidOtherwise = ["20261201012000_JournalAndIntakeLieInParts"];

    [Fact]
    public void Every_change_of_tables_since_the_release_before_only_adds_or_says_that_it_takes_away()
    {
        using var db = store.Get<IDbContextFactory<NailcrowDb>>().CreateDbContext();
        var migrations = db.GetService<IMigrationsAssembly>();

        foreach (var (id, type) in migrations.Migrations.Where(m => string.CompareOrdinal(m.Key, Release.TablesBefore) > 0))
        {
            var migration = migrations.CreateMigration(type, db.Database.ProviderName!);
            if (!Release.IsTakenAwayBy(id) && !LaidOtherwise.Contains(id))
                migration.UpOperations.Select(o => InTheWay(o, migration.UpOperations)).OfType<string>().ShouldBeEmpty(id);
        }
        migrations.Migrations.Keys.ShouldContain(
            k => k.EndsWith("_AnsweredOnce", StringComparison.Ordinal),
            "the release before is known by it"
        );
    }

    [Fact]
    public async Task A_newer_release_that_only_added_keeps_nobody_out_and_one_that_took_away_says_so()
    {
        await using var own = new StoreInUse();
        await own.InitializeAsync();
        own.Tamper("INSERT INTO \"__EFMigrationsHistory\" (migration_id, product_version) VALUES ('99990101000000_MoreColumns', '10')");

        (await own.Get<Database>().MigrateAsync(Ct)).ShouldBeEmpty();
        await own.WriteAsync(await own.OpenAsync(), new NoteWritten("Written by the release before"));

        own.Tamper("INSERT INTO \"__EFMigrationsHistory\" (migration_id, product_version) VALUES ('99990201000000_WithoutOwners', '10')");
        var refused = await Should.ThrowAsync<OtherReleaseException>(() => own.Get<Database>().MigrateAsync(Ct));
        refused.Message.ShouldBe(
            $"A newer release has worked on this record, and took away what {Release.Version} needs (99990201000000_WithoutOwners). Start that "
                + "release, or a newer one."
        );
    }

    [Fact]
    public async Task A_node_that_is_two_releases_back_keeps_this_one_from_changing_tables_until_it_has_gone()
    {
        Assert.SkipUnless(PostgresServer.IsTested, "A file is one process's.");
        await using var own = new StoreInUse();
        await own.InitializeAsync();
        var newest = own.Dump("\"__EFMigrationsHistory\"").Split('\n')[^1].Split('|')[0];
        own.Tamper($"DELETE FROM \"__EFMigrationsHistory\" WHERE migration_id = '{newest}'");
        own.Tamper(
            "INSERT INTO node (id, name, since, seen_at, release, tables) VALUES "
                + $"('{Guid.CreateVersion7()}', 'cellar 17', now(), now(), '0.0.9', '20261129210650_Begin')"
        );

        var refused = await Should.ThrowAsync<OtherReleaseException>(() => own.Get<Database>().MigrateAsync(Ct));

        refused.Message.ShouldStartWith($"cellar 17 (0.0.9) still works on this record, which is older than {Release.Before}.");
    }

    [Fact]
    public async Task While_a_node_is_there_that_cannot_read_it_a_new_word_decides_nothing_and_what_happened_is_written_all_the_same()
    {
        Assert.SkipUnless(PostgresServer.IsTested, "A file is one process's.");
        await using var own = new StoreInUse();
        await own.InitializeAsync();
        var reads = JournalWords.All.Except(["engineer-assigned.engineer", "note-written"]).ToArray();
        await using var source = NpgsqlDataSource.Create(own.Server!); // it is a server
        await using (
            var add = source.CreateCommand(
                "INSERT INTO node (id, name, since, seen_at, release, reads) VALUES ($1, 'cellar 17', now(), now(), '0.1.9', $2)"
            )
        )
        {
            add.Parameters.Add(new() { Value = Guid.CreateVersion7() });
            add.Parameters.Add(new() { Value = reads });
            await add.ExecuteNonQueryAsync(Ct);
        }
        await using var node = new ServiceCollection().NodeOn(own);
        foreach (var service in node.GetServices<IHostedService>())
            await service.StartAsync(Ct);
        var ticket = await own.OpenAsync();
        Task<Written> Assign() => node.Journal().WriteAsync(ticket, StoreInUse.Intent(new EngineerAssigned("ilka")), Ct);

        await Soon.IsAsync(async () => await Assign() is Written.Declined, Ct);
        ((await Assign()).ShouldBeOfType<Written.Declined>().Ruling.ShouldBeOfType<Core.Tickets.Ruling.Refused>()).Reason.ShouldBe(
            $"This is new in {Release.Version}, and cellar 17 still runs 0.1.9, which would count it for nothing. Try again when that node is upgraded too."
        );
        (await node.Journal().WriteAsync(ticket, StoreInUse.Intent(new NoteWritten("It happened")), Ct)).ShouldBeOfType<Written.Kept>();

        own.Tamper("DELETE FROM node WHERE name = 'cellar 17'");
        await Soon.IsAsync(async () => await Assign() is Written.Kept, Ct);
        foreach (var service in node.GetServices<IHostedService>())
            await service.StopAsync(CancellationToken.None);
    }

    [Fact]
    public async Task Lists_that_a_newer_release_told_are_left_as_they_are()
    {
        await using var own = new StoreInUse();
        await own.InitializeAsync();
        var (ticket, older) = (await own.OpenAsync(), await own.OpenAsync(StoreInUse.Fault(asset: "FSC-2")));
        own.Tamper($"UPDATE ticket_line SET rules = 9999, symptom = 'As the newer one tells it' WHERE number = {ticket}");
        own.Tamper($"UPDATE ticket_line SET rules = 1, symptom = 'As the older one tells it' WHERE number = {older}");
        var lists = own.Get<Tickets.Lists.Projections>();
        (await lists.AreStaleAsync(Ct)).ShouldBeTrue();

        (await lists.BringUpToDateAsync(Ct)).ShouldBe(1);

        (await lists.AreStaleAsync(Ct)).ShouldBeFalse();
        var lines = own.Dump("ticket_line");
        lines.ShouldContain("As the newer one tells it");
        lines.ShouldNotContain("As the older one tells it");
    }
}
