using System.Buffers.Text;
using System.Text.RegularExpressions;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Returns;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.People;

/// <summary>Somebody may have seen the keys: others take their place, and nothing that was kept is lost.</summary>
public sealed partial class KeysRenewedTests
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task All_that_is_kept_is_under_the_new_key_and_what_was_protected_by_those_before_opens_nothing()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(new Uri("http://127.0.0.1:9"));
        service.NotRestartedBecause = "the test does so";
        var (admin, device) = await WithSecretsAsync(service);
        using var before = await service.HttpAsync("lioth");
        var seal = await admin.SealAsync(Ct);
        var kept = Protected(service);
        kept.Count.ShouldBeGreaterThanOrEqualTo(4);
        (await RenewAsync(service)).ShouldBe(
            (1, $"A service works on {service.DatabaseFile}. Stop it, and say this again: it has the keys in hand.\n")
        );
        await service.StopAsync();

        var (code, said) = await RenewAsync(service);

        (code, said).ShouldBe((0, said));
        said.ShouldContain($"Secrets kept under it: {kept.Count}. Keys before it, which open nothing any more: 1.");
        var now = Protected(service);
        now.Keys.Order().ShouldBe(kept.Keys.Order());
        now.Values.Distinct().ShouldHaveSingleItem().ShouldNotBe(kept.Values.Distinct().ShouldHaveSingleItem());
        await using var again = await service.StartsAnewAsync();
        using var still = again.Http();
        still.DefaultRequestHeaders.Authorization = before.DefaultRequestHeaders.Authorization;
        ((int)(await still.GetAsync("api/me", Ct)).StatusCode).ShouldBe(401);
        (await (await again.SignInAsync("lioth")).MeAsync(Ct)).Name.ShouldBe("lioth");
        var client = new NailcrowClient(again.Http(), TimeProvider.System);
        var shown = device.Shows(DateTimeOffset.UtcNow.AddSeconds(30)); // the one before was used
        client.UseToken((await client.SignInAsync("admin", RunningService.Password, Ct, shown)).AccessToken);
        (await client.SealAsync(Ct)).Fingerprint.ShouldBe(seal.Fingerprint);
        (await client.SecurityLogAsync(null, SecurityEvent.KeysRenewed, null, 10, Ct))
            .Lines.ShouldHaveSingleItem()
            .Detail.ShouldBe($"secrets kept anew: {kept.Count}; not opened: 0");
    }

    [Fact]
    public async Task What_was_kept_under_keys_that_are_gone_is_named_and_has_to_be_given_anew()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(new Uri("http://127.0.0.1:9"));
        service.NotRestartedBecause = "its keys are gone";
        await WithSecretsAsync(service);
        await service.StopAsync();
        Directory.Delete($"{service.DatabaseFile}.keys", recursive: true);

        var (code, said) = await RenewAsync(service);
        code.ShouldBe(1, said);
        said.ShouldContain("With the keys that are here these cannot be opened: the sign-in of FSC-0107; ");
        said.ShouldContain(". Nothing was changed. Put the keys back ");
        (code, said) = await RenewAsync(service, "--without-lost");

        code.ShouldBe(0, said);
        foreach (
            var whose in new[]
            {
                "the sign-in of FSC-0107",
                "what tide-sensors signs events with",
                "what Gullwing signs with",
                "the one-time codes of admin",
            }
        )
            said.ShouldContain($"  Could not be opened, and has to be given anew: {whose}.\n");
    }

    [Fact]
    public async Task Where_nothing_is_or_something_else_is_said_it_says_so()
    {
        var nowhere = Path.Combine(Path.GetTempPath(), $"{Guid.CreateVersion7()}.db");

        (await ServiceCommand.RunAsync(Ct, "renew-keys", nowhere)).ShouldBe(
            (2, $"'{nowhere}' is nothing that is taken: nailcrow-service renew-keys [--without-lost] [--Nailcrow:Data=PLACE].\n")
        );
        (await ServiceCommand.RunAsync(Ct, "renew-keys", $"--Nailcrow:Data={nowhere}")).ShouldBe(
            (1, $"There is no database at {nowhere}; --Nailcrow:Data=PLACE says where it is.\n")
        );
        File.Exists(nowhere).ShouldBeFalse();
    }

    /// <summary>One of each that is kept.</summary>
    private static async Task<(NailcrowClient Admin, CodeDevice Device)> WithSecretsAsync(RunningService service)
    {
        var admin = await service.SignInAsync("admin");
        await (await service.SignInAsync("lioth")).GiveSignInAsync("FSC-0107", new("service", SignInWay.Basic, "a-machine's-secret"), Ct);
        await admin.PutSenderAsync("tide-sensors", Ct);
        await admin.PutPartnerAsync("Gullwing", new(PartnerKind.Carrier, "http://127.0.0.1:9/"), Ct);
        var device = new CodeDevice((await admin.OfferCodesAsync(RunningService.Password, Ct)).Key);
        await admin.TakeCodesAsync(device.Shows(DateTimeOffset.UtcNow), Ct);
        return (admin, device);
    }

    private static Task<(int Code, string Said)> RenewAsync(RunningService service, params string[] more) =>
        ServiceCommand.RunAsync(Ct, ["renew-keys", .. more, $"--Nailcrow:Data={service.DatabaseFile}"]);

    /// <summary>
    /// Wherever in the database something stands that data protection made, and the key it is under: a payload begins with a mark of four
    /// bytes and the key's id.
    /// </summary>
    private static Dictionary<string, Guid> Protected(RunningService service)
    {
        using var connection = new SqliteConnection($"Data Source={service.DatabaseFile};Mode=ReadOnly;Pooling=False");
        connection.Open();
        var found = new Dictionary<string, Guid>();
        foreach (
            var table in Rows(connection, "SELECT name FROM sqlite_master WHERE type = 'table'").Select(row => (string)row[0]).ToList()
        )
        foreach (var (nth, row) in Rows(connection, $"SELECT * FROM \"{table}\"").Index())
        foreach (var (column, value) in row.Index())
            if (value is string text && Payload().Match(text) is { Success: true, Value: var payload })
                found[$"{table} {nth} {column}"] = new(Base64Url.DecodeFromChars(payload).AsSpan(4, 16));
        return found;
    }

    private static IEnumerable<object[]> Rows(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        using var row = command.ExecuteReader();
        while (row.Read())
        {
            var values = new object[row.FieldCount];
            row.GetValues(values);
            yield return values;
        }
    }

    [GeneratedRegex("CfDJ8[A-Za-z0-9_-]+")]
    private static partial Regex Payload();
}
