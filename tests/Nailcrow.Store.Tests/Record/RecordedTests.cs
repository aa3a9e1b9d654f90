using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.Data.Sqlite;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tests.Record;

/// <summary>What an earlier release wrote, read by this one.</summary>
public sealed class RecordedTests : IAsyncLifetime
{
    private readonly StoreInUse _store = new();

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public static TheoryData<string> Releases => [.. RecordedRelease.All.Select(r => r.Name)];

    public ValueTask InitializeAsync()
    {
        StoreInUse.IsAboutTheFile();
        return _store.InitializeAsync();
    }

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    private async Task<RecordedRelease> KeptHereAsync(string name)
    {
        var release = RecordedRelease.All.Single(r => r.Name == name);
        using (var connection = new SqliteConnection($"Data Source={_store.File}"))
        {
            connection.Open();
            foreach (var row in release.Rows)
                Insert(connection, row);
        }
        await _store.Get<Projections>().RebuildAsync(Ct);
        return release;
    }

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
        var release = await KeptHereAsync(name);

        var (over, troubles) = await _store.VerifyAsync();

        // Some tickets were recorded and others not, and of pictures only their entries.
        troubles.Where(t => t.Kind != TroubleKind.Missing).ShouldBeEmpty();
        over.Entries.ShouldBe(release.Rows.Count());
    }

    [Theory, MemberData(nameof(Releases))]
    public async Task Each_ticket_is_the_one_it_was_then(string name)
    {
        var release = await KeptHereAsync(name);

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
    public async Task A_record_that_is_older_than_the_release_before_is_left_as_it_is_and_which_release_brings_it_on_is_said()
    {
        var ticket = await _store.OpenAsync();
        _store.Tamper("DELETE FROM \"__EFMigrationsHistory\" WHERE migration_id > '20261129085031_SignInElsewhere'"); // as an older one left it
        var before = _store.Dump("journal");

        var refused = await Should.ThrowAsync<OtherReleaseException>(() => _store.Get<Database>().MigrateAsync(Ct));

        refused.Message.ShouldBe(
            "This record was last worked on by a release older than 0.1.0 (its tables are as of 20261129085031_SignInElsewhere). Start 0.1.0 on "
                + $"it once, which brings it to a form that {Release.Version} goes on from; nothing was changed here."
        );
        _store.Dump("journal").ShouldBe(before);
        before.ShouldContain($"{ticket}");
    }
}
