using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tests.Record;

/// <summary>A database that an earlier release wrote, brought up to date by this one.</summary>
public sealed class RecordedTests : IAsyncLifetime
{
    private readonly StoreInUse _store = new() { Migrated = false };

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public static TheoryData<string> Releases => [.. RecordedRelease.All.Select(r => r.Name)];

    public ValueTask InitializeAsync()
    {
        StoreInUse.IsAboutTheFile();
        return _store.InitializeAsync();
    }

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    private async Task<RecordedRelease> BroughtUpToDateAsync(string name)
    {
        var release = RecordedRelease.All.Single(r => r.Name == name);
        await using (var db = await _store.Get<IDbContextFactory<NailcrowDb>>().CreateDbContextAsync(Ct))
            await db.GetService<IMigrator>().MigrateAsync(LastMigrationOf(name), Ct);
        using (var connection = new SqliteConnection($"Data Source={_store.File}"))
        {
            connection.Open();
            foreach (var row in release.Rows)
                Insert(connection, row);
        }
        await _store.Get<Database>().MigrateAsync(Ct);
        await _store.Get<Projections>().RebuildAsync(Ct);
        return release;
    }

    private static string LastMigrationOf(string release) =>
        release switch
        {
            "0.1.0" => "ProceduresHaveVersions",
            _ => throw new ArgumentOutOfRangeException(nameof(release)),
        };

    private static void Insert(SqliteConnection connection, JsonElement row)
    {
        using var command = connection.CreateCommand();
        var columns = row.EnumerateObject().Select(p => p.Name).ToList();
        command.CommandText =
            $"INSERT INTO journal ({string.Join(", ", columns.Select(c => $"\"{c}\""))}) VALUES ({string.Join(", ", columns.Select(c => $"@{c}"))})";
        foreach (var column in row.EnumerateObject())
            command.Parameters.AddWithValue(
                $"@{column.Name}",
                column.Value.ValueKind == JsonValueKind.Number ? column.Value.GetInt64() : column.Value.GetString()
            );
        command.ExecuteNonQuery();
    }

    [Theory, MemberData(nameof(Releases))]
    public async Task Every_chain_still_holds_from_what_was_stored_and_every_entry_is_read(string name)
    {
        var release = await BroughtUpToDateAsync(name);

        var (over, troubles) = await _store.VerifyAsync();

        // Some tickets were recorded and others not, and of pictures only their entries.
        troubles.Where(t => t.Kind != TroubleKind.Missing).ShouldBeEmpty();
        over.Entries.ShouldBe(release.Rows.Count());
    }

    [Theory, MemberData(nameof(Releases))]
    public async Task Each_ticket_is_the_one_it_was_then(string name)
    {
        var release = await BroughtUpToDateAsync(name);

        foreach (var (number, told) in release.Tickets)
        {
            var now = JsonSerializer.SerializeToElement(
                (await _store.Journal.ReadAsync(number, Ct))!.Ticket,
                new JsonSerializerOptions { PropertyNamingPolicy = JsonNamingPolicy.CamelCase }
            );
            Told.Differences(told, now, $"T-{number}").Where(d => !IsMeant(d)).ShouldBeEmpty();
        }
    }

    /// <summary>What tickets say otherwise than they did, on purpose, each with the reason.</summary>
    private static bool IsMeant(string difference) => IsAWipeWithItsTime(difference);

    /// <summary>A wipe has its time since: what was in the machine again after it is not wiped any more.</summary>
    private static bool IsAWipeWithItsTime(string difference) =>
        Regex.IsMatch(difference, """^T-\d+\.wiped\[\d+\] was (\w+) and is \{"serial":"\1","at":"2026-""");

    [Fact]
    public async Task An_upgrade_that_was_interrupted_goes_on_where_it_was()
    {
        var release = RecordedRelease.All.Single(r => r.Name == "0.1.0");
        await using (var db = await _store.Get<IDbContextFactory<NailcrowDb>>().CreateDbContextAsync(Ct))
            await db.GetService<IMigrator>().MigrateAsync("ProceduresHaveVersions", Ct);
        using (var connection = new SqliteConnection($"Data Source={_store.File}"))
        {
            connection.Open();
            foreach (var row in release.Rows)
                Insert(connection, row);
        }
        await using (var db = await _store.Get<IDbContextFactory<NailcrowDb>>().CreateDbContextAsync(Ct))
            await db.Database.MigrateAsync(Ct); // the tables are new, and the power went before any text was put together

        await _store.Get<Database>().MigrateAsync(Ct);

        (await _store.VerifyAsync()).Over.Entries.ShouldBe(release.Rows.Count());
    }
}
