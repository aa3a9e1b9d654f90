using System.CommandLine;
using System.Net;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Procedures.Language;

namespace Nailcrow.Cli.Procedures;

/// <summary>Versions at the service: published, withdrawn, compared, and how their steps go in practice.</summary>
internal static class PublishCommands
{
    public static Command Publish()
    {
        var file = Said.Text("FILE", "A procedure file; its skeleton and fragments go along.");
        var trusting = Said.Optional(
            "--trusting",
            "The word for what is taken on trust, as 'procedure check' tells it; asked for without.",
            "WORD"
        );
        return new Command("publish", "Publish it: new runs use it from then on. Nothing unproved is published.") { file, trusting }.Does(
            async call =>
            {
                var path = call.Get(file);
                ProcedureFiles.Read(call, path);
                var name = Path.GetFileName(path);
                var files = new Dictionary<string, string>(
                    ProcedureFolder.SharedTexts(Path.GetDirectoryName(Path.GetFullPath(path)) ?? ".")
                )
                {
                    [name] = File.ReadAllText(path),
                };
                var view = await PublishedAsync(call, new(name, files, call.Get(trusting)), path);
                call.Show(
                    view,
                    ContractJson.Default.ProcedureView,
                    screen =>
                        screen.Line(
                            $"{Screen.Safe(view.Id)} {view.Version} is published: {view.Steps} steps, {view.States} situations, proved."
                        )
                );
            }
        );
    }

    /// <summary>Who may not publish, or has something unproved, is told so before anything is asked.</summary>
    private static async Task<ProcedureView> PublishedAsync(Call call, PublishAsk ask, string path)
    {
        try
        {
            return await call.Client.PublishAsync(ask, call.Ct);
        }
        catch (ApiProblem refused)
            when (refused.Status == HttpStatusCode.Conflict && ask.Trusting is null && CheckCommand.View(path) is { IsProved: true } view)
        {
            return await call.Client.PublishAsync(ask with { Trusting = await AnsweredForAsync(call, view) }, call.Ct);
        }
    }

    /// <summary>Whoever publishes reads what is new of what is taken on trust, and says that they answer for it.</summary>
    private static async Task<string?> AnsweredForAsync(Call call, ProcedureView view)
    {
        var (id, trusted) = (view.Id!, view.Trusted ?? []); // a proved one has a name
        var before = await BeforeAsync(call, id);
        var fresh = trusted.Where(t => !before.Any(t.Says)).ToList();
        var known = trusted.Count - fresh.Count;
        if (fresh.Count > 0)
            TrustTold.List(
                call.Screen,
                fresh,
                $"Taken on trust, since no proof can know it: {fresh.Count}{(known > 0 ? $" new, {known} as published before" : "")}"
            );
        else
            call.Screen.Line($"Nothing new is taken on trust; {known} {(known == 1 ? "thing is" : "things are")} as published before.");
        var answer = await call.AskAnewAsync("  You answer for it. Publish? (yes or no) > ");
        return answer.Trim().ToUpperInvariant() is "YES" or "Y"
            ? view.Trusting
            : throw new Refusal($"{id} was not published; 'yes' publishes it.");
    }

    /// <summary>What the version that is used now is trusted in; nothing where there is none.</summary>
    private static async Task<IReadOnlyList<TakenOnTrust>> BeforeAsync(Call call, string id)
    {
        try
        {
            return (await call.Client.ProcedureAsync(id, null, call.Ct)).Trusted;
        }
        catch (ApiProblem refused) when (refused.Status == HttpStatusCode.NotFound)
        {
            return [];
        }
    }

    public static Command Withdraw()
    {
        var (id, version, because) = (
            Said.Text("PROCEDURE", "Its name."),
            Said.Text("VERSION", "Which version; 'procedure versions' lists them."),
            Said.Text("BECAUSE", "Why; everybody who is on it is told.")
        );
        return new Command("withdraw", "Take a version back. Runs keep it, and whoever is on one is warned.") { id, version, because }.Does(
            async call =>
            {
                await call.Client.WithdrawAsync(call.Get(id), call.Get(version), call.Get(because), call.Ct);
                call.Screen.Line($"{Screen.Safe(call.Get(id))} {Screen.Safe(call.Get(version))} is withdrawn.");
            }
        );
    }

    public static Command BringBack()
    {
        var (id, version, because) = (
            Said.Text("PROCEDURE", "Its name."),
            Said.Text("VERSION", "Which version; 'procedure versions' lists them."),
            Said.Text("BECAUSE", "Why it may be used again.")
        );
        return new Command("bring-back", "Use a version again that was withdrawn.") { id, version, because }.Does(async call =>
        {
            await call.Client.BringBackAsync(call.Get(id), call.Get(version), call.Get(because), call.Ct);
            call.Screen.Line($"{Screen.Safe(call.Get(id))} {Screen.Safe(call.Get(version))} is used again.");
        });
    }

    public static Command Versions()
    {
        var id = Said.Text("PROCEDURE", "Its name.");
        return new Command("versions", "Every version that was published.") { id }.Does(async call =>
        {
            var page = await call.Client.ProcedureAsync(call.Get(id), null, call.Ct);
            call.Show(
                page,
                ContractJson.Default.ProcedurePage,
                screen =>
                    screen.Table(
                        ["version", "published", "by", "situations", ""],
                        page.Versions.Select(v =>
                            new[]
                            {
                                $"[bold]{v.Version}[/]",
                                $"{v.PublishedAt.UtcDateTime:yyyy-MM-dd HH:mm}",
                                Screen.Safe(v.PublishedBy),
                                $"{v.States}",
                                v.WithdrawnAt is { } at
                                    ? $"[bold]withdrawn[/] {at.UtcDateTime:yyyy-MM-dd} by {Screen.Safe(v.WithdrawnBy)}: {Screen.Safe(v.WithdrawnBecause)}"
                                    : Screen.Safe(v.Earlier),
                            }
                        )
                    )
            );
        });
    }

    public static Command Compare()
    {
        var (id, before, after) = (
            Said.Text("PROCEDURE", "Its name."),
            Said.Text("BEFORE", "A version."),
            Said.Text("AFTER", "Another version.")
        );
        return new Command("compare", "What differs between two versions.") { id, before, after }.Does(async call =>
        {
            var difference = await call.Client.CompareProcedureAsync(call.Get(id), call.Get(before), call.Get(after), call.Ct);
            call.Show(
                difference,
                ContractJson.Default.VersionDifference,
                screen =>
                {
                    if (difference.Changes.Count == 0)
                        screen.Line("Nothing differs in what is done.");
                    foreach (var change in difference.Changes)
                    {
                        screen.Line($"[bold]{Screen.Safe(change.Step)}[/] {change.What}");
                        foreach (
                            var line in (change.Before ?? "")
                                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                                .Except((change.After ?? "").Split('\n'))
                        )
                            screen.Line($"  - {Screen.Safe(line)}");
                        foreach (
                            var line in (change.After ?? "")
                                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                                .Except((change.Before ?? "").Split('\n'))
                        )
                            screen.Line($"  + {Screen.Safe(line)}");
                    }
                }
            );
        });
    }

    public static Command Times()
    {
        var id = Said.Text("PROCEDURE", "Its name.");
        return new Command("times", "How long its steps take, and where people get stuck.") { id }.Does(async call =>
        {
            var times = await call.Client.ProcedureTimesAsync(call.Get(id), call.Ct);
            call.Show(
                times,
                ContractJson.Default.TimesView,
                screen =>
                {
                    screen.Line($"{Screen.Safe(times.Procedure)}: {times.Runs} {(times.Runs == 1 ? "run" : "runs")} that are over.");
                    screen.Table(
                        ["step", "visits", "half within", "most within", "came back", "went elsewhere", "overruled", ""],
                        times.Steps.Select(s =>
                            new[]
                            {
                                Screen.Safe(s.Step),
                                $"{s.Visits}",
                                Told(s.Seconds),
                                Told(s.SlowSeconds),
                                $"{s.Again:P0}",
                                $"{s.Otherwise:P0}",
                                $"{s.Overruled}",
                                s.TooEarly ? "[dim]too early to tell[/]"
                                : s.Stuck ? "[bold]people get stuck here[/]"
                                : "",
                            }
                        )
                    );
                }
            );
        });
    }

    private static string Told(double seconds) =>
        seconds < 90 ? $"{seconds:0} s"
        : seconds < 5400 ? $"{seconds / 60:0} min"
        : $"{seconds / 3600:0.0} h";
}
