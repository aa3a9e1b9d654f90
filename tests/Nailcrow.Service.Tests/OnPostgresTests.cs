using System.Diagnostics;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests;

/// <summary>The record on PostgreSQL: the same service, and bad days of another kind.</summary>
public sealed class OnPostgresTests : IAsyncLifetime
{
    private RunningPostgres? _postgres;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private RunningPostgres Postgres => _postgres ?? throw new InvalidOperationException("Not started.");

    public async ValueTask InitializeAsync() => _postgres = await RunningPostgres.StartAsync();

    public ValueTask DisposeAsync() => Postgres.DisposeAsync();

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

    /// <summary>It does not start, and says why in one sentence.</summary>
    private static async Task EndsWithAsync(string database, string sentence)
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
                "--Nailcrow:Database",
                database,
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
