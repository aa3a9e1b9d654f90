using Microsoft.Data.Sqlite;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Language;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Procedures;

/// <summary>
/// A firm has procedures of its own from before a rule was made stricter. After the upgrade each is proved anew: what holds is used as
/// before, what does not is used for no new run, and whoever is on it is told.
/// </summary>
public sealed class EarlierRulesTests
{
    private static readonly string Folder = Path.Combine(Built.Root, "procedures");

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_was_proved_under_earlier_rules_is_proved_anew_before_it_is_used_again()
    {
        AboutTheFile.Only();
        await using var before = await RunningService.StartPeopledAsync(alone: true);
        before.NotRestartedBecause = "its library is put back to how an earlier release left it";
        var (lioth, ilka) = (await before.SignInAsync("lioth"), await before.SignInAsync("ilka"));
        var shipped = (await lioth.ProcedureAsync("not-reached", null, Ct)).Version;
        var unsafeOne = await lioth.PublishAsync(Ask("not-reached", "Try every way in", "Try each way in"), Ct);
        await lioth.PublishAsync(Ask("screen-frozen", "Wait a minute.", "Wait two minutes."), Ct);
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), Ct)).Ticket;
        await ilka.WriteAsync(ticket, new EngineerAssigned("ilka"), Ct);
        await ilka.StartRunAsync(ticket, "not-reached", Ct);
        await before.Process.KillAsync();
        // Its gate has lost its way out, as if the proof of then had not looked for that.
        Sql(before.Folder, "update procedure_version set proved_under = 1");
        Sql(
            before.Folder,
            "update procedure_version set files = replace(replace(files, 'not-so: stuck\\n', ''), 'moves: nothing', 'hear: Nothing.') "
                + $"where version = '{unsafeOne.Version}'"
        );

        await using var after = await RunningService.StartAsync(before.Folder);

        var lead = await after.SignInAsync("lioth");
        var refused = (await lead.ProceduresAsync(Ct)).Procedures.Where(p => !p.IsProved).ToList();
        refused.Select(p => p.Id).ShouldBe(["not-reached"]);
        refused[0].Findings.ShouldContain(f => f.Rule == SafetyRule.WayOut);
        refused[0].Findings.ShouldContain(f => f.Rule == SafetyRule.Declared); // which alone would be no reason
        (await lead.ProceduresAsync(Ct)).Procedures.Single(p => p.IsProved && p.Id == "not-reached").Version.ShouldBe(shipped);
        var frozen = await lead.ProcedureAsync("screen-frozen", null, Ct);
        (frozen.Versions[0].PublishedBy, frozen.Versions[0].NoLonger).ShouldBe(("lioth", null));
        Number(
                before.Folder,
                $"select count(*) from procedure_version where proved_under = {Prover.RulesNow} and procedure = 'screen-frozen'"
            )
            .ShouldBe(1);
        Number(before.Folder, "select min(proved_under) from procedure_version where procedure = 'not-reached'").ShouldBe(1);
        var told = (await lead.DeskAsync(Ct)).NotUsed.ShouldNotBeNull().ShouldHaveSingleItem();
        told.Says.ShouldContain($"version {unsafeOne.Version}, is given to no new run. Today's proof refuses it: ");
        told.Says.ShouldContain($"Version {shipped} is used instead");
        var run = (await (await after.SignInAsync("ilka")).TicketAsync(ticket, Ct)).Run!; // it was started before
        (run.Sheet.Version, run.Withdrawn).ShouldBe(
            (unsafeOne.Version, $"Today's proof refuses it: {refused[0].Findings.First(f => f.Rule == SafetyRule.WayOut).Sentence}")
        );
        await lead.WithdrawAsync("not-reached", unsafeOne.Version!, "The gate has no way out.", Ct);
        (await lead.DeskAsync(Ct)).NotUsed.ShouldBe([]);
    }

    private static PublishAsk Ask(string procedure, string was, string now)
    {
        var files = ProcedureFolder
            .SharedTexts(Folder)
            .Append(new($"{procedure}.yaml", File.ReadAllText(Path.Combine(Folder, $"{procedure}.yaml"))))
            .ToDictionary(f => f.Key, f => f.Value.Replace(was, now, StringComparison.Ordinal));
        return new($"{procedure}.yaml", files, Checking.View($"{procedure}.yaml", files).Trusting);
    }

    private static void Sql(string folder, string sql)
    {
        using var connection = Open(folder);
        using var command = new SqliteCommand(sql, connection);
        command.ExecuteNonQuery().ShouldBeGreaterThan(0);
    }

    private static long Number(string folder, string sql)
    {
        using var connection = Open(folder);
        using var command = new SqliteCommand(sql, connection);
        return (long)command.ExecuteScalar()!; // a count or a least number
    }

    private static SqliteConnection Open(string folder)
    {
        var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "nailcrow.db")};Pooling=False");
        connection.Open();
        return connection;
    }
}
