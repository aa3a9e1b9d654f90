using System.Diagnostics;
using System.Net.Http.Headers;
using Microsoft.Data.Sqlite;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Host;

/// <summary>Going down, and days on which nothing can be kept. Each on a service of its own.</summary>
[Takes(165)]
public sealed class BadDaysTests
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static async Task<long> TicketAsync(NailcrowClient ilka) =>
        (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Beeper"), Ct)).Ticket;

    [Fact]
    public async Task Whoever_listens_is_told_when_the_service_goes_down_and_nothing_acknowledged_is_lost()
    {
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        service.NotRestartedBecause = "it is stopped by the test itself";
        var ilka = await service.SignInAsync("ilka");
        var ticket = await TicketAsync(ilka);
        using var http = service.Http();
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue(
            "Bearer",
            (await new NailcrowClient(http, TimeProvider.System).SignInAsync("ilka", RunningService.Password, Ct)).AccessToken
        );
        using var stream = new StreamReader(await http.GetStreamAsync("api/live", Ct));
        var acknowledged = new List<Guid>();
        int Acknowledged()
        {
            lock (acknowledged)
                return acknowledged.Count;
        }

        var writing = Enumerable
            .Range(0, 4)
            .Select(_ =>
                Task.Run(
                    async () =>
                    {
                        try
                        {
                            while (true)
                            {
                                var receipt = await ilka.WriteAsync(ticket, new NoteWritten("While it is going down"), Ct);
                                lock (acknowledged)
                                    acknowledged.Add(receipt.Id);
                            }
                        }
                        catch (Exception e) when (e is HttpRequestException or ApiProblem)
                        {
                            // It has gone down.
                        }
                    },
                    Ct
                )
            )
            .ToList();
        await Soon.IsAsync(() => Task.FromResult(Acknowledged() > 10), Ct);

        await service.Process.StopAsync(); // within five seconds, or it throws

        await Task.WhenAll(writing);
        (await stream.ReadToEndAsync(Ct)).ShouldContain("event: going");
        await using var again = await RunningService.StartAsync(service.Folder);
        var kept = new HashSet<Guid>();
        for (long? after = 0; after is { } at; )
        {
            var page = await (await again.SignInAsync("ilka")).JournalAsync(ticket, at, Ct);
            kept.UnionWith(page.Entries.Select(e => e.Id));
            after = page.Next;
        }
        acknowledged.Count.ShouldBeGreaterThan(10);
        acknowledged.Where(id => !kept.Contains(id)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_database_that_vanished_is_said_in_plain_words_and_gone_on_with_when_it_is_back()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        var ilka = await service.SignInAsync("ilka");
        var ticket = await TicketAsync(ilka);
        string[] parts = ["", "-wal", "-shm"];
        foreach (var part in parts)
            File.Move(service.DatabaseFile + part, service.DatabaseFile + part + ".away");

        var no = await Should.ThrowAsync<ApiProblem>(() => ilka.WriteAsync(ticket, new NoteWritten("Into nothing"), Ct));
        (
            ((int)no.Status),
            no.Message.EndsWith("Nothing was written; it goes on by itself once the file is back.", StringComparison.Ordinal)
                || no.Message.EndsWith("Nothing was written; it goes on by itself once it is back.", StringComparison.Ordinal)
        ).ShouldBe((503, true), no.Message);

        foreach (var part in parts)
            File.Move(service.DatabaseFile + part + ".away", service.DatabaseFile + part, overwrite: true);
        await ilka.WriteAsync(ticket, new NoteWritten("Back"), Ct);
        (await ilka.JournalAsync(ticket, 0, Ct)).Entries.Select(e => e.Body).OfType<NoteWritten>().Select(n => n.Text).ShouldBe(["Back"]);
    }

    [Fact]
    public async Task A_full_disk_is_said_in_plain_words_and_gone_on_with_when_there_is_room()
    {
        AboutTheFile.Only();
        var room = await RoomAsync();
        Assert.SkipWhen(room is null, "A small disk can only be made by root.");
        await using var disk = room!; // skipped where there is none
        await using var service = await RunningService.StartAsync(disk.Folder);
        var admin = await service.SignInAsync("admin");
        await service.LetInAsync("ilka", Core.People.Role.Engineer);
        await admin.LoadAsync(
            System.Text.Json.JsonSerializer.Deserialize(
                await File.ReadAllTextAsync(Path.Combine(Built.Root, "demo", "reference.json"), Ct),
                ContractJson.Default.ReferenceData
            )!,
            Ct
        );
        var ilka = await service.SignInAsync("ilka");
        var ticket = await TicketAsync(ilka);
        disk.Fill();

        ApiProblem? no = null;
        for (var i = 0; i < 200 && no is null; i++)
            try
            {
                await ilka.WriteAsync(ticket, new NoteWritten(new string('x', 3_000)), Ct);
            }
            catch (ApiProblem problem)
            {
                no = problem;
            }

        ((int?)no?.Status, no?.Message).ShouldBe(
            (503, "The disk that holds the database is full. Nothing was written; make room, and it goes on by itself.")
        );
        disk.Free();
        await ilka.WriteAsync(ticket, new NoteWritten("There is room"), Ct);
        (await admin.VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_database_that_another_program_holds_is_said_in_plain_words_to_all_who_write_at_once_and_gone_on_with()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        var ilka = await service.SignInAsync("ilka");
        var ticket = await TicketAsync(ilka);
        await using var other = new SqliteConnection($"Data Source={service.DatabaseFile};Pooling=False");
        await other.OpenAsync(Ct);
        await Sql(other, "BEGIN IMMEDIATE");

        var asked = Stopwatch.StartNew();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(i => Should.ThrowAsync<ApiProblem>(() => ilka.WriteAsync(ticket, new NoteWritten($"While it is held {i}"), Ct)))
        );

        answers.ShouldAllBe(a =>
            (int)a.Status == 503
            && a.Message
                == "Another program holds the database. Nothing was written; try again, and look for what holds it where it stays so."
        );
        asked.Elapsed.ShouldBeLessThan(TimeSpan.FromSeconds(60), "each of them alone would have waited in turn");
        (await ilka.TicketAsync(ticket, Ct)).Number.ShouldBe(ticket); // reading goes on
        await Sql(other, "ROLLBACK");
        await ilka.WriteAsync(ticket, new NoteWritten("It is free"), Ct);
        (await ilka.JournalAsync(ticket, 0, Ct))
            .Entries.Select(e => e.Body)
            .OfType<NoteWritten>()
            .Select(n => n.Text)
            .ShouldBe(["It is free"]);
    }

    [Fact]
    public async Task A_write_protected_disk_is_said_by_the_start_and_nothing_on_it_is_touched()
    {
        AboutTheFile.Only();
        var room = await RoomAsync();
        Assert.SkipWhen(room is null, "A disk can only be write-protected by root.");
        await using var disk = room!; // skipped where there is none
        await using (var service = await RunningService.StartAsync(disk.Folder))
            service.NotRestartedBecause = "its disk is write-protected next";
        disk.Protect();

        var (code, said) = await RunAsync([
            "--urls",
            "http://127.0.0.1:0",
            "--Nailcrow:Data",
            Path.Combine(disk.Folder, "nailcrow.db"),
            "--Nailcrow:Procedures",
            Path.Combine(Built.Root, "procedures"),
        ]);

        (code, said).ShouldBe(
            (
                1,
                "The database may only be read: its file, its folder or its disk is write-protected. Nothing was "
                    + "written; start the service again when that is mended.\n"
            )
        );
    }

    private static async Task Sql(SqliteConnection on, string sql)
    {
        await using var command = on.CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync(Ct);
    }

    [Fact]
    public async Task Syslog_is_listened_for_as_soon_as_the_port_is_free_and_the_service_does_not_wait_for_it()
    {
        using var other = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        other.Start();
        var port = ((System.Net.IPEndPoint)other.LocalEndpoint).Port;

        await using var service = await RunningService.StartAsync(syslogPort: port);
        await service.Process.HearsAsync("Syslog is not listened for on port");
        other.Stop();

        (await service.SyslogPortAsync()).ShouldBe(port);
    }

    [Fact]
    public async Task A_backup_made_while_it_runs_is_restored_by_the_service_itself_and_people_sign_in_to_it()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        var (ilka, admin) = (await service.SignInAsync("ilka"), await service.SignInAsync("admin"));
        var ticket = await TicketAsync(ilka);
        await admin.PutSenderAsync("observatory", Ct);
        await admin.SealAsync(Ct);
        var (folder, secret) = (Directory.CreateTempSubdirectory("nailcrow-back-").FullName, "");
        var backup = Path.Combine(folder, "b.zip");
        await using (var file = File.Create(backup))
            await admin.BackupAsync(file, keys: false, Ct);

        var place = Path.Combine(folder, "nailcrow.db");
        var restored = await RestoreAsync(backup, place);
        restored.ShouldBe(
            (
                0,
                $"{place} is as it was when b.zip was made. Start the service with the same --Nailcrow:Data, and let 'nailcrow admin verify' look it over.\n"
            )
        );
        (await RestoreAsync(backup, place)).Code.ShouldBe(1);
        (await RestoreAsync(Path.Combine(folder, "none.zip"), place + "2")).ShouldBe(
            (1, $"There is no file {Path.Combine(folder, "none.zip")}.\n")
        );

        (
            await RunAsync(["restore", backup, $"--Nailcrow:Data={place}3", "--Nailcrow:Database=Host=db;Database=nailcrow"])
        ).Said.ShouldStartWith("Nailcrow:Database is set: the record is on PostgreSQL, and a backup of the file would be read by nobody.");
        File.Exists($"{place}3").ShouldBeFalse();

        await using var again = await RunningService.StartAsync(folder);
        (await (await again.SignInAsync("ilka")).TicketAsync(ticket, Ct)).Report.Symptom.ShouldBe("Beeper");
        var found = await (await again.SignInAsync("admin")).VerifyAsync(Ct);
        (found.Holds, found.Sealed).ShouldBe((true, 1));
        (await File.ReadAllTextAsync(place, System.Text.Encoding.Latin1, Ct)).ShouldNotContain("whsec");
        _ = secret;
        await again.DisposeAsync();
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task Secrets_lie_in_clear_neither_in_the_database_nor_in_a_copy()
    {
        AboutTheFile.Only();
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        var secret = (await (await service.SignInAsync("admin")).PutSenderAsync("observatory", Ct)).Secret;

        await using var connection = new SqliteConnection($"Data Source={service.DatabaseFile};Mode=ReadOnly");
        await connection.OpenAsync(Ct);
        await using var ask = connection.CreateCommand();
        ask.CommandText = "SELECT group_concat(secret) FROM event_sender";
        var kept = (string?)await ask.ExecuteScalarAsync(Ct);

        kept.ShouldNotBeNull().ShouldNotContain(secret.ShouldNotBeNull());
        if (!OperatingSystem.IsWindows())
            foreach (var file in Directory.EnumerateFiles(service.Folder, "nailcrow.db*"))
                File.GetUnixFileMode(file).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite, file);
    }

    private static Task<(int Code, string Said)> RestoreAsync(string backup, string place) =>
        RunAsync(["restore", backup, $"--Nailcrow:Data={place}"]);

    /// <summary>The service's program, to its end.</summary>
    private static async Task<(int Code, string Said)> RunAsync(string[] arguments)
    {
        var start = new ProcessStartInfo("dotnet", [Built.Service, .. arguments])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        using var process = Process.Start(start) ?? throw new InvalidOperationException("dotnet did not start.");
        var said = await process.StandardOutput.ReadToEndAsync(Ct) + await process.StandardError.ReadToEndAsync(Ct);
        await process.WaitForExitAsync(Ct);
        return (process.ExitCode, said);
    }

    /// <summary>A disk of a few megabytes; null where this machine does not let us make one.</summary>
    private static async Task<SmallDisk?> RoomAsync()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-small-").FullName;
        using var mount =
            Process.Start(
                new ProcessStartInfo("bash", ["-c", $"mount -t tmpfs -o size=16m tmpfs {folder}"]) { RedirectStandardError = true }
            ) ?? throw new InvalidOperationException("bash did not start.");
        await mount.WaitForExitAsync();
        return mount.ExitCode == 0 ? new(folder) : null;
    }

    private sealed record SmallDisk(string Folder) : IAsyncDisposable
    {
        private string Ballast => Path.Combine(Folder, "ballast");

        public void Protect()
        {
            using var mount = Process.Start("mount", ["-o", "remount,ro", Folder]);
            mount.WaitForExit();
            mount.ExitCode.ShouldBe(0);
        }

        public void Fill()
        {
            using var file = File.Create(Ballast);
            var block = new byte[64 * 1024];
            try
            {
                while (true)
                    file.Write(block);
            }
            catch (IOException)
            {
                // Full.
            }
        }

        public void Free() => File.Delete(Ballast);

        public async ValueTask DisposeAsync()
        {
            using var unmount = Process.Start("bash", ["-c", $"umount -l {Folder}"]);
            await unmount.WaitForExitAsync();
            Directory.Delete(Folder);
        }
    }
}
