using System.Diagnostics;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Nodes;

/// <summary>The record on PostgreSQL: the same service, and bad days of another kind.</summary>
public sealed class OnPostgresTests : IAsyncLifetime
{
    private RunningPostgres? _postgres;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private RunningPostgres Postgres => _postgres ?? throw new InvalidOperationException("Not started.");

    public async ValueTask InitializeAsync() => _postgres = await ServerOfItsOwn.StartAsync();

    public ValueTask DisposeAsync() => _postgres?.DisposeAsync() ?? ValueTask.CompletedTask;

    private static string[] On(string database) =>
        ["--Nailcrow:Database", database, "--Nailcrow:PasswordRounds", "1000", "--Nailcrow:ReadsAhead", "false"];

    /// <summary>In a process of its own: in one that is shared, questions are compiled for the file.</summary>
    private static Task<RunningService> ServiceAsync(string database) =>
        RunningService.StartPeopledAsync(assembly: Built.Service, further: On(database));

    [Fact]
    public async Task A_ticket_is_opened_worked_on_found_and_there_after_a_restart_and_nothing_lies_in_a_file()
    {
        var database = await Postgres.NewDatabaseAsync();
        await using var service = await ServiceAsync(database);
        var ilka = await service.SignInAsync("ilka");

        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off at the ærø shelf", Bay: "5"), Ct)).Ticket;
        await ilka.WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);

        (await ilka.TicketsAsync(new(Find: "sc-0203"), Ct)).Tickets.Select(t => t.Number).ShouldBe([ticket]);
        (await ilka.JournalAsync(ticket, 0, Ct)).Entries.Count.ShouldBeGreaterThanOrEqualTo(2);
        File.Exists(service.DatabaseFile).ShouldBeFalse();
        var refused = await Should.ThrowAsync<ApiProblem>(async () =>
            await (await service.SignInAsync("admin")).BackupAsync(Stream.Null, keys: false, Ct)
        );
        refused.Message.ShouldStartWith("The record is on PostgreSQL: its own tools back it up (pg_dump)");
        var (view, line) = (await ilka.TicketAsync(ticket, Ct), (await ilka.TicketsAsync(new(), Ct)).Tickets.Single());

        await service.Process.StopAsync();
        await using var again = await RunningService.StartAsync(service.Folder, assembly: Built.Service, further: On(database));

        ilka = await again.SignInAsync("ilka");
        var after = await ilka.TicketAsync(ticket, Ct);
        (after.Head, after.Stage, after.Engineer, after.Report.Symptom).ShouldBe(
            (view.Head, view.Stage, view.Engineer, view.Report.Symptom)
        );
        var admin = await again.SignInAsync("admin");
        await admin.RebuildProjectionsAsync(Ct);
        (await ilka.TicketsAsync(new(), Ct)).Tickets.ShouldHaveSingleItem().ShouldBe(line);
        (await admin.VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_node_that_waits_while_another_upgrades_the_record_says_so_and_starts_once_that_is_done()
    {
        var database = await Postgres.NewDatabaseAsync();
        await using (var before = await ServiceAsync(database))
            await before.Process.StopAsync();
        const string Long = "SELECT pg_sleep(600)";
        const string Held = $"FROM pg_stat_activity WHERE state = 'active' AND query LIKE '%{Long}' AND wait_event = 'PgSleep'";
        var upgrading = Postgres.AskAsync(database, $"LOCK TABLE \"__EFMigrationsHistory\"; {Long}");
        await Soon.IsAsync(async () => (await Postgres.AskAsync(database, $"SELECT count(*) {Held}")).Trim() == "1", Ct);
        var folder = Directory.CreateTempSubdirectory("nailcrow-");

        await using var node = RunningProcess.Start(
            Built.Service,
            ["--urls", "http://127.0.0.1:0", "--Nailcrow:Data", folder.FullName + "/nailcrow.db", .. On(database)]
        );
        await node.HearsAsync("The record is being brought to this release's form, by this node or by another that it waits for");
        node.Said.ShouldNotContain("Nailcrow listens");
        await Postgres.AskAsync(database, $"SELECT pg_cancel_backend(pid) {Held}");

        await node.HearsAsync("Nailcrow listens");
        await Should.ThrowAsync<InvalidOperationException>(upgrading);
        folder.Delete(recursive: true);
    }

    /// <summary>PostgreSQL takes no half of a character where a file takes anything: wherever we cut a text, we cut between two.</summary>
    [Fact]
    public async Task Texts_that_are_cut_or_searched_for_by_their_end_may_have_characters_that_take_two_places()
    {
        await using var service = await ServiceAsync(await Postgres.NewDatabaseAsync());
        using var http = await service.HttpAsync("ilka");
        var wide = string.Concat(Enumerable.Repeat("🔩", 40));

        foreach (var text in new[] { wide, $"7{wide}" }) // whichever half a cut would hit
        {
            foreach (var asked in new[] { "drives?serial=", "warranties?find=", "tickets?find=", "appliances?find=" })
                ((int)(await http.GetAsync($"api/{asked}{Uri.EscapeDataString(text)}", Ct)).StatusCode).ShouldBeLessThan(500, asked);
            var stranger = new NailcrowClient(service.Http(), TimeProvider.System);
            (await Should.ThrowAsync<ApiProblem>(() => stranger.SignInAsync(text, "none", Ct))).Status.ShouldBe(
                System.Net.HttpStatusCode.Unauthorized
            );
            ((int)(await http.DeleteAsync($"api/partners/{Uri.EscapeDataString(text + text + text)}", Ct)).StatusCode).ShouldBe(403);
        }
    }

    [Fact]
    public async Task A_server_that_goes_down_is_said_in_plain_words_and_gone_on_with_when_it_is_back()
    {
        await using var service = await ServiceAsync(await Postgres.NewDatabaseAsync());
        var ilka = await service.SignInAsync("ilka");
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), Ct)).Ticket;

        await Postgres.StopAsync();
        foreach (var _ in Enumerable.Range(0, 3))
        {
            var no = await Should.ThrowAsync<ApiProblem>(() => ilka.WriteAsync(ticket, new NoteWritten("Into nothing"), Ct));
            ((int)no.Status, no.Message).ShouldBe(
                (503, "The database server does not answer. Nothing was written; it goes on by itself once it does.")
            );
        }
        await Postgres.StartAgainAsync();

        await ilka.WriteAsync(ticket, new NoteWritten("Back"), Ct);
        (await ilka.JournalAsync(ticket, 0, Ct)).Entries.Select(e => e.Body).OfType<NoteWritten>().Select(n => n.Text).ShouldBe(["Back"]);
        (await (await service.SignInAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_server_that_is_not_there_at_the_start_is_told_as_that()
    {
        var nowhere = await Postgres.NewDatabaseAsync();
        await Postgres.StopAsync();

        await EndsWithAsync(
            nowhere,
            "The database server does not answer. Nothing was written; start the service again when that is mended."
        );
    }

    [Fact]
    public async Task A_server_that_does_not_let_the_service_in_and_words_that_lead_nowhere_are_told_at_the_start()
    {
        var there = await Postgres.NewDatabaseAsync();
        const string NotLetIn =
            "The database server does not let the service in: look at the name, the password and the database in Nailcrow:Database, and "
            + "whether that name owns the database. Nothing was written; start the service again when that is mended.";

        await EndsWithAsync(there.Replace("Database=nailcrow", "Database=another"), NotLetIn);
        await EndsWithAsync(there.Replace("Username=nailcrow", "Username=nobody"), NotLetIn);
        await EndsWithAsync("Hosst=127.0.0.1", "Nailcrow:Database cannot be used: ");
        await EndsWithAsync("Host=127.0.0.1", "Nailcrow:Database cannot be used: it says no Host or no Database.");
        await EndsWithAsync("", "Nailcrow:Database cannot be used: it says no Host or no Database.");
    }

    [Fact]
    public async Task Keys_in_the_database_are_read_by_the_nodes_that_have_the_certificate_for_them_and_by_nobody_else()
    {
        var database = await Postgres.NewDatabaseAsync();
        var folder = Directory.CreateTempSubdirectory("nailcrow-keys-").FullName;
        string[] with = Certificate(folder, "keys");
        await using var first = await RunningService.StartAsync(assembly: Built.Service, further: [.. On(database), .. with]);
        var token = (
            await new NailcrowClient(first.Http(), TimeProvider.System).SignInAsync("admin", RunningService.Password, Ct)
        ).AccessToken;
        var seal = await (await first.SignInAsync("admin")).SealAsync(Ct);

        var kept = await Postgres.AskAsync(database, "SELECT string_agg(text, ' ') FROM shared_key");
        kept.ShouldContain("EncryptedData");
        kept.ShouldNotContain("<masterKey");
        kept.ShouldNotContain("PRIVATE KEY");

        await first.Process.StopAsync();
        await using var second = await RunningService.StartAsync(assembly: Built.Service, further: [.. On(database), .. with]);
        (await Asked(second).MeAsync(Ct)).Name.ShouldBe("admin");
        (await Asked(second).SealAsync(Ct)).Fingerprint.ShouldBe(seal.Fingerprint);

        await second.Process.StopAsync();
        await using var another = await RunningService.StartAsync(
            assembly: Built.Service,
            further: [.. On(database), .. Certificate(folder, "others")]
        );
        ((int)(await Should.ThrowAsync<ApiProblem>(() => Asked(another).MeAsync(Ct))).Status).ShouldBe(401);
        var admin = await another.SignInAsync("admin"); // it works on all the same, by a key of its own
        (await Should.ThrowAsync<ApiProblem>(() => admin.SealAsync(Ct))).Message.ShouldBe(
            "The key for seals is protected by a certificate that this node does not have. Nothing was written; start this node with the "
                + "Nailcrow:KeysCertificate that the others have."
        );
        Directory.Delete(folder, recursive: true);

        NailcrowClient Asked(RunningService service)
        {
            var client = new NailcrowClient(service.Http(), TimeProvider.System);
            client.UseToken(token);
            return client;
        }
    }

    [Fact]
    public async Task Another_certificate_takes_the_place_of_one_while_nodes_work_and_that_one_goes_once_the_keys_were_renewed()
    {
        var database = await Postgres.NewDatabaseAsync();
        var folder = Directory.CreateTempSubdirectory("nailcrow-keys-").FullName;
        var (before, next) = (Certificate(folder, "keys"), Certificate(folder, "next"));
        string[] both = [.. next, .. before.Select(word => word.Replace("KeysCertificate:", "KeysCertificatesBefore:0:"))];
        await using var first = await RunningService.StartAsync(assembly: Built.Service, further: [.. On(database), .. before]);
        var admin = await first.SignInAsync("admin");
        var seal = await admin.SealAsync(Ct);

        await using var second = await RunningService.StartAsync(assembly: Built.Service, further: [.. On(database), .. both]);
        var there = new NailcrowClient(second.Http(), TimeProvider.System);
        there.UseToken(admin.Token!); // signed in above
        (await there.SealAsync(Ct)).Fingerprint.ShouldBe(seal.Fingerprint);
        var (code, said) = await ServiceCommand.RunAsync(Ct, ["renew-keys", .. On(database), .. both]);
        (code, said).ShouldBe((1, said));
        said.ShouldContain(" work on it. Stop them, and say this again: they have the keys in hand.");

        await first.Process.StopAsync();
        await second.Process.StopAsync();
        await Soon.IsAsync(
            async () => ((code, said) = await ServiceCommand.RunAsync(Ct, ["renew-keys", .. On(database), .. both])).code == 0,
            Ct
        );
        said.ShouldContain("A new key, good until ");
        (code, said) = await ServiceCommand.RunAsync(Ct, ["renew-keys", .. On(database), .. Certificate(folder, "others")]);
        code.ShouldBe(1, said); // or nothing would ever open again
        said.ShouldContain("With the keys that are here these cannot be opened: the key for seals. Nothing was changed.");
        await using var third = await RunningService.StartAsync(assembly: Built.Service, further: [.. On(database), .. next]);
        there = new NailcrowClient(third.Http(), TimeProvider.System);
        there.UseToken(admin.Token!);
        ((int)(await Should.ThrowAsync<ApiProblem>(() => there.MeAsync(Ct))).Status).ShouldBe(401);
        (await (await third.SignInAsync("admin")).SealAsync(Ct)).Fingerprint.ShouldBe(seal.Fingerprint);
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task A_certificate_that_cannot_protect_keys_is_told_at_the_start()
    {
        var there = await Postgres.NewDatabaseAsync();
        var folder = Directory.CreateTempSubdirectory("nailcrow-keys-").FullName;
        using (var curve = ECDsa.Create(ECCurve.NamedCurves.nistP256))
            Write(folder, "curve", new CertificateRequest("CN=keys", curve, HashAlgorithmName.SHA256), curve);

        await EndsWithAsync(there, "Nailcrow:KeysCertificate: the certificate in '", Setting(folder, "curve"));
        await EndsWithAsync(there, "Nailcrow:KeysCertificate: The certificate in '", Setting(folder, "nowhere"));
        await EndsWithAsync(null, "Nailcrow:KeysCertificate is for keys in a database (Nailcrow:Database);", Certificate(folder, "keys"));
        Directory.Delete(folder, recursive: true);
    }

    private static string[] Certificate(string folder, string name)
    {
        using var key = RSA.Create(2048);
        Write(folder, name, new CertificateRequest("CN=keys", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1), key);
        return Setting(folder, name);
    }

    private static void Write(string folder, string name, CertificateRequest request, AsymmetricAlgorithm key)
    {
        using var certificate = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
        File.WriteAllText(Path.Combine(folder, $"{name}.pem"), certificate.ExportCertificatePem());
        File.WriteAllText(Path.Combine(folder, $"{name}.key"), key.ExportPkcs8PrivateKeyPem());
    }

    private static string[] Setting(string folder, string name) =>
        [
            "--Nailcrow:KeysCertificate:Certificate",
            Path.Combine(folder, $"{name}.pem"),
            "--Nailcrow:KeysCertificate:Key",
            Path.Combine(folder, $"{name}.key"),
        ];

    /// <summary>It does not start, and says why in one sentence.</summary>
    private static async Task EndsWithAsync(string? database, string sentence, params string[] further)
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-");
        var start = new ProcessStartInfo(
            "dotnet",
            [
                Built.Service,
                "--urls",
                "http://127.0.0.1:0",
                "--Nailcrow:Data",
                Path.Combine(folder.FullName, "nailcrow.db"),
                "--Nailcrow:Procedures",
                Path.Combine(Built.Root, "procedures"),
                .. database is null ? [] : new[] { "--Nailcrow:Database", database },
                .. further,
            ]
        )
        {
            RedirectStandardError = true,
        };

        using var process = Process.Start(start)!; // dotnet is there: it runs us
        var said = await process.StandardError.ReadToEndAsync(Ct);
        await process.WaitForExitAsync(Ct);

        process.ExitCode.ShouldBe(1);
        said.ShouldStartWith(sentence);
        said.Trim().ShouldNotContain('\n', said);
        folder.Delete(recursive: true);
    }
}
