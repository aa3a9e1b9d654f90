using System.Diagnostics;
using System.Net;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Client.Admin;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Nodes;

/// <summary>One PostgreSQL for all tests of a class, each with databases of its own.</summary>
public sealed class OnePostgres : IAsyncLifetime
{
    private RunningPostgres? _postgres;

    public RunningPostgres Server => _postgres ?? throw new InvalidOperationException("Not started.");

    public async ValueTask InitializeAsync() => _postgres = await RunningPostgres.StartAsync();

    public ValueTask DisposeAsync() => Server.DisposeAsync();
}

/// <summary><c>nailcrow-service move</c>: a record goes from a file to a PostgreSQL and back, and is the same on both.</summary>
[Takes(120)]
public sealed class MovingTests(OnePostgres postgres) : IClassFixture<OnePostgres>, IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(1);

    private readonly string _folder = Directory.CreateTempSubdirectory("nailcrow-moving-").FullName;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private RunningPostgres Postgres => postgres.Server;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Fact]
    public async Task A_record_moves_while_it_is_worked_on_and_whoever_was_signed_in_goes_on_where_they_were_and_it_comes_back_as_well()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        var (ilka, lioth, admin) = (
            await service.SignInAsync("ilka"),
            await service.SignInAsync("lioth"),
            await service.SignInAsync("admin")
        );
        var token = await TokenAsync(service);
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off at the ærø shelf", Bay: "5"), Ct)).Ticket;
        var (stays, goes) = (await PictureAsync(ilka, ticket), await PictureAsync(ilka, ticket));
        await admin.PutSenderAsync("observatory", Ct);
        var seal = await admin.SealAsync(Ct);
        var server = await Postgres.NewDatabaseAsync();

        var first = await MoveAsync(service.DatabaseFile, server);

        first.Code.ShouldBe(3);
        first.Said.ShouldContain("A service works on it. Stop it and say this again");
        await ilka.WriteAsync(ticket, new NoteWritten("Written after the first part was copied"), Ct);
        await lioth.WriteAsync(ticket, new PictureRemoved(goes, "A face is on it."), Ct);
        var last = await PictureAsync(ilka, ticket);
        (await FailsToStartAsync(server)).ShouldContain("is being filled from");
        var before = await RecordAsync(ilka, ticket);
        await service.Process.StopAsync();

        var second = await MoveAsync(service.DatabaseFile, server);

        second.Code.ShouldBe(0, second.Said);
        second.Said.ShouldContain("they hold.");
        (await FailsToStartAsync(null, service.DatabaseFile)).ShouldContain("was moved to Host=");
        (await MoveAsync(service.DatabaseFile, await Postgres.NewDatabaseAsync())).ShouldSatisfyAllConditions(
            again => again.Code.ShouldBe(1),
            again => again.Said.ShouldContain("was moved to Host=")
        );
        await using (var onServer = await StartedAsync(service.DatabaseFile, server))
        {
            var there = With(onServer, token);
            (await RecordAsync(there, ticket)).ShouldBe(before);
            (await SeenAsync(onServer, ticket, stays)).ShouldBe(Png);
            (await SeenAsync(onServer, ticket, last)).ShouldBe(Png);
            (await SeenAsync(onServer, ticket, goes)).ShouldBeNull();
            var keeper = await onServer.SignInAsync("admin");
            (await keeper.VerifyAsync(Ct, new(seal.Text))).Troubles.ShouldBeEmpty();
            await there.WriteAsync(ticket, new NoteWritten("Written on the server"), Ct);
            var next = await keeper.SealAsync(Ct);
            (next.Number, next.Fingerprint).ShouldBe((seal.Number + 1, seal.Fingerprint));
            before = await RecordAsync(there, ticket);
            await onServer.Process.StopAsync(); // who is killed is waited for some seconds
        }
        await ComesBackAsync(server, ticket, token, before, seal);
    }

    private async Task ComesBackAsync(string server, long ticket, string token, string before, SealMade seal)
    {
        var file = Path.Combine(_folder, "back.db");
        // A number that a server gave to a row that it took back stays a hole in what it numbers.
        await Postgres.AskAsync(server, "SELECT nextval(pg_get_serial_sequence('journal', 'position'))");

        var back = await MoveAsync(server, file);

        back.Code.ShouldBe(0, back.Said);
        back.Said.ShouldContain("they hold.");
        (await FailsToStartAsync(server)).ShouldContain($"was moved to {file}");
        await using var home = await StartedAsync(file, null);
        (await RecordAsync(With(home, token), ticket)).ShouldBe(before);
        await With(home, token).WriteAsync(ticket, new NoteWritten("At home again"), Ct);
        (await (await home.SignInAsync("admin")).VerifyAsync(Ct, new(seal.Text))).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Two_services_do_not_work_on_one_file()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);

        (await FailsToStartAsync(null, service.DatabaseFile)).ShouldBe(
            $"A service works on {service.DatabaseFile} already, and a file is one service's; several work together on PostgreSQL (docs/running.md)."
        );
    }

    [Fact]
    public async Task A_record_that_was_moved_is_written_again_where_it_was_once_somebody_says_so()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        await service.Process.StopAsync();
        var server = await Postgres.NewDatabaseAsync();
        (await MoveAsync(service.DatabaseFile, server)).Code.ShouldBe(0);

        var forgotten = await RunAsync("move", "--forget", "--from", service.DatabaseFile);

        forgotten.Said.ShouldContain("is the record again that is written. What was written at Host=");
        forgotten.Code.ShouldBe(0, forgotten.Said);
        await using var again = await StartedAsync(service.DatabaseFile, null);
        (await again.SignInAsync("ilka")).ShouldNotBeNull();
        (await RunAsync("move", "--forget", "--from", service.DatabaseFile)).ShouldBe(
            (1, $"Nothing was moved away from {service.DatabaseFile}.\n")
        );
    }

    private static readonly (string Wrong, string Told)[] CannotStandOnTheOther =
    [
        (
            "UPDATE journal SET recorded_at = 'yesterday' WHERE seq = 2",
            "journal 2: recorded_at cannot be read: a String stands where a Int64 is kept"
        ),
        ("UPDATE ticket_line SET head = 'many'", "ticket_line 1001: head cannot be read: a String stands where a Int64 is kept"),
        ("UPDATE customer SET name = 'a' || char(0) || 'b' WHERE name = (SELECT min(name) FROM customer)", "customer takes a row not"),
    ];

    [Fact]
    public async Task What_cannot_stand_on_the_other_is_told_with_its_place_and_goes_over_once_it_is_put_right()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        var ilka = await service.SignInAsync("ilka");
        await ilka.WriteAsync(
            (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), Ct)).Ticket,
            new NoteWritten("One more"),
            Ct
        );
        await service.Process.StopAsync();
        var (sound, server) = (Path.Combine(_folder, "sound.db"), await Postgres.NewDatabaseAsync());
        File.Copy(service.DatabaseFile, sound);
        foreach (var (wrong, told) in CannotStandOnTheOther)
        {
            Change(service.DatabaseFile, wrong);

            var no = await MoveAsync(service.DatabaseFile, server);

            no.Code.ShouldBe(1, wrong);
            no.Said.ShouldContain(told);
            File.Copy(sound, service.DatabaseFile, overwrite: true);
        }
        (await MoveAsync(service.DatabaseFile, server)).Code.ShouldBe(0);
    }

    [Fact]
    public async Task A_move_that_is_killed_goes_on_where_it_stood_and_nothing_is_there_twice()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        var ilka = await service.SignInAsync("ilka");
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), Ct)).Ticket;
        await PictureAsync(ilka, ticket);
        var server = await Postgres.NewDatabaseAsync();
        (await MoveAsync(service.DatabaseFile, server)).Code.ShouldBe(3);
        await ilka.WriteAsync(ticket, new NoteWritten("Before a picture of it"), Ct);
        await PictureAsync(ilka, ticket);
        var before = await RecordAsync(ilka, ticket);
        await service.Process.StopAsync();

        // Somebody holds the table of pictures, which come after the journal; it is killed where it waits.
        var holding = Postgres.AskAsync(server, "LOCK TABLE photo IN ACCESS EXCLUSIVE MODE; SELECT pg_sleep(60)");
        using (var moving = Started("move", "--from", service.DatabaseFile, "--to", server))
        {
            while (await Postgres.AskAsync(server, "SELECT count(*) FROM pg_locks WHERE NOT granted") == "0")
                moving.HasExited.ShouldBeFalse();
            moving.Kill();
            await moving.WaitForExitAsync(Ct);
        }
        await Postgres.AskAsync(server, "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE '%pg_sleep(60)'");
        await Should.ThrowAsync<InvalidOperationException>(() => holding);
        (await Postgres.AskAsync(server, "SELECT count(*) FROM journal WHERE kind = 'note-written'")).ShouldBe("1");
        var moved = await MoveAsync(service.DatabaseFile, server);

        moved.Said.ShouldContain("they hold.");
        await using var onServer = await StartedAsync(service.DatabaseFile, server);
        (await RecordAsync(await onServer.SignInAsync("ilka"), ticket)).ShouldBe(before);
        (await Postgres.AskAsync(server, "SELECT count(*) FROM photo")).ShouldBe("2");
    }

    [Fact]
    public async Task A_place_that_was_half_filled_from_another_record_is_not_filled_on()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        var ilka = await service.SignInAsync("ilka");
        await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), Ct);
        var server = await Postgres.NewDatabaseAsync();
        (await MoveAsync(service.DatabaseFile, server)).Code.ShouldBe(3);
        await service.Process.StopAsync();
        Change(service.DatabaseFile, "UPDATE journal SET hash = 'of another record' WHERE position = 1");

        var no = await MoveAsync(service.DatabaseFile, server);

        no.Code.ShouldBe(1);
        no.Said.ShouldContain("journal 1 is another one at the other place, which was filled from another record; give an empty one.");
        (await FailsToStartAsync(server)).ShouldContain("is being filled from");
    }

    [Fact]
    public async Task A_move_that_is_killed_in_its_last_step_is_said_again_and_leaves_nobody_without_a_record()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        await service.Process.StopAsync();
        var server = await Postgres.NewDatabaseAsync();
        (await MoveAsync(service.DatabaseFile, server)).Code.ShouldBe(0);
        // As it stands when the old place was left, and the new one was not yet free.
        await Postgres.AskAsync(server, $"INSERT INTO record_place VALUES (1, 'Filling', '{service.DatabaseFile}', now())");
        (await FailsToStartAsync(server)).ShouldContain("is being filled from");

        var again = await MoveAsync(service.DatabaseFile, $"{server};Application Name=again");

        again.Code.ShouldBe(0, again.Said);
        await using var onServer = await StartedAsync(service.DatabaseFile, server);
        (await onServer.SignInAsync("ilka")).ShouldNotBeNull();
    }

    [Fact]
    public async Task What_cannot_be_meant_is_said_and_what_is_there_already_is_left_alone()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        await service.Process.StopAsync();
        var (server, taken) = (await Postgres.NewDatabaseAsync(), await Postgres.NewDatabaseAsync());
        await (await StartedAsync(Path.Combine(_folder, "other.db"), taken)).DisposeAsync();
        var nowhere = Path.Combine(_folder, "none.db");

        (await RunAsync("move")).ShouldSatisfyAllConditions(no => no.Code.ShouldBe(2), no => no.Said.ShouldContain("--to PLACE"));
        (await RunAsync("move", "--to", server, "--forget")).Code.ShouldBe(2);
        (await RunAsync("move", server)).Code.ShouldBe(2);
        (await MoveAsync(nowhere, server)).ShouldBe((1, $"There is no database at {nowhere}; --from says where it is.\n"));
        (await MoveAsync(service.DatabaseFile, nowhere)).Said.ShouldContain("are of one kind");
        (await MoveAsync(service.DatabaseFile, "Host=127.0.0.1")).Said.ShouldContain(
            "--from or --to is no server: it says no Host or no Database."
        );
        (await MoveAsync(service.DatabaseFile, taken)).Said.ShouldContain("holds something already (");
        (
            await MoveAsync(service.DatabaseFile, server.Replace("Database=nailcrow", "Database=another", StringComparison.Ordinal))
        ).Said.ShouldContain("Say the same again when that is mended: a move goes on where it stood.");
        var letter = Path.Combine(_folder, "letter.txt");
        await File.WriteAllTextAsync(letter, "No record.", Ct);
        (await MoveAsync(letter, server)).Said.ShouldContain("is not of this version, or no record at all");
        Directory.EnumerateFileSystemEntries(_folder, "letter*").ShouldBe([letter]);
        await using var still = await StartedAsync(service.DatabaseFile, null);
        (await still.SignInAsync("ilka")).ShouldNotBeNull();
    }

    private static readonly byte[] Png = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg=="
    );

    private static async Task<Guid> PictureAsync(NailcrowClient by, long ticket)
    {
        var id = Guid.CreateVersion7();
        await by.KeepPhotoAsync(ticket, id, new MemoryStream(Png), null, "The label", Ct);
        return id;
    }

    /// <returns>Null where it is kept no more.</returns>
    private static async Task<byte[]?> SeenAsync(RunningService service, long ticket, Guid photo)
    {
        using var http = await service.HttpAsync("ilka");
        using var answer = await http.GetAsync($"api/tickets/{ticket}/photos/{photo}", Ct);
        return answer.StatusCode == HttpStatusCode.Gone ? null : await answer.EnsureSuccessStatusCode().Content.ReadAsByteArrayAsync(Ct);
    }

    /// <summary>All that a ticket's page and its journal say.</summary>
    private static async Task<string> RecordAsync(NailcrowClient by, long ticket)
    {
        var view = await by.TicketAsync(ticket, Ct);
        return JsonSerializer.Serialize(
            new
            {
                view.Head,
                view.Stage,
                view.Report,
                view.Photos,
                Entries = (await by.JournalAsync(ticket, 0, Ct)).Entries,
            }
        );
    }

    private static async Task<string> TokenAsync(RunningService service) =>
        (await new NailcrowClient(service.Http(), TimeProvider.System).SignInAsync("ilka", RunningService.Password, Ct)).AccessToken;

    private static NailcrowClient With(RunningService service, string token)
    {
        var client = new NailcrowClient(service.Http(), TimeProvider.System);
        client.UseToken(token);
        return client;
    }

    private static void Change(string file, string sql)
    {
        using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        connection.Open();
        using var change = connection.CreateCommand();
        change.CommandText = $"DROP TRIGGER journal_keeps_what_was_written; PRAGMA foreign_keys = OFF; {sql}";
        change.ExecuteNonQuery();
    }

    private static Task<RunningService> StartedAsync(string file, string? server) =>
        RunningService.StartAsync(
            Path.GetDirectoryName(file),
            assembly: Built.Service,
            further:
            [
                "--Nailcrow:Data",
                file,
                "--Nailcrow:PasswordRounds",
                "1000",
                .. server is null ? [] : new[] { "--Nailcrow:Database", server },
            ]
        );

    private async Task<string> FailsToStartAsync(string? server, string? file = null)
    {
        var (code, said) = await RunAsync([
            "--urls",
            "http://127.0.0.1:0",
            $"--Nailcrow:Data={file ?? Path.Combine(_folder, "unused.db")}",
            $"--Nailcrow:Procedures={Path.Combine(Built.Root, "procedures")}",
            .. server is null ? [] : new[] { $"--Nailcrow:Database={server}" },
        ]);
        code.ShouldBe(1);
        return said.Trim();
    }

    private static Task<(int Code, string Said)> MoveAsync(string from, string to) => RunAsync("move", "--from", from, "--to", to);

    private static async Task<(int Code, string Said)> RunAsync(params string[] words)
    {
        using var process = Started(words);
        var (said, wrong) = (process.StandardOutput.ReadToEndAsync(Ct), process.StandardError.ReadToEndAsync(Ct));
        using var soon = CancellationTokenSource.CreateLinkedTokenSource(Ct);
        soon.CancelAfter(Patience);
        try
        {
            await process.WaitForExitAsync(soon.Token);
        }
        catch (OperationCanceledException)
        {
            process.Kill(); // it started where it should not have
        }
        return (process.ExitCode, await said + await wrong);
    }

    private static Process Started(params string[] words) =>
        Process.Start(
            new ProcessStartInfo("dotnet", [Built.Service, .. words]) { RedirectStandardOutput = true, RedirectStandardError = true }
        )!; // dotnet is there: it runs us
}
