using System.CommandLine;
using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Rebuilds;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Cli.Swaps;

/// <summary>
/// The whole run at the keyboard: a step, an answer, the next step. Leaving it loses nothing; any other way of following goes on
/// from there.
/// </summary>
internal static class FollowCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        return new Command("follow", "Step by step at the keyboard, until the end; leave and come back as you like.") { ticket }.Does(
            async call =>
            {
                var number = call.Get(ticket);
                for (var view = await call.Client.TicketAsync(number, call.Ct); ; view = await AgainAsync(call, view))
                {
                    call.Show(view, ContractJson.Default.TicketView, screen => StepScreen.Draw(screen, view));
                    if (RunCommands.Running(view).Current is not { } step || !await AskAsync(call, view, step))
                        return;
                    call.Screen.Hint();
                }
            }
        );
    }

    /// <summary>The ticket as it is now; while nobody answers, it is asked for again whenever the person says so.</summary>
    private static async Task<TicketView> AgainAsync(Call call, TicketView view)
    {
        while (true)
            try
            {
                return view.Run is { } run
                    ? await call.Client.TicketAsync(view.Number, run.Sheet, call.Ct)
                    : await call.Client.TicketAsync(view.Number, call.Ct);
            }
            catch (Exception e) when (Silence.Is(e, call.Ct))
            {
                await call.AskAsync($"      {call.Service} does not answer. What was kept is kept. Enter tries again, Ctrl-C leaves > ");
            }
    }

    /// <summary>False when the person leaves.</summary>
    private static async Task<bool> AskAsync(Call call, TicketView view, RunStep step)
    {
        switch ((await call.AskAnewAsync($"      {Prompt(view, step)} > ")).Trim())
        {
            case "q" or "leave":
                return false;
            case "s" or "snapshot":
                Tell(call, await TryAsync(call, () => call.Client.TakeSnapshotAsync(view.Number, call.Ct)));
                return true;
            case "t" or "type":
                await TypeAsync(call, view);
                return true;
            case "h" or "hand" when step.Kind == StepKind.Light:
                // a step comes from a run
                Tell(call, await TryAsync(call, () => call.KeepAsync(view.Number, Answers.Body(view.Run!.Sheet, step, RunStep.Done))));
                return true;
            case "o" or "other":
                await OtherSheetAsync(call, view);
                return true;
            case "w" or "watch" when step.Gate.ComesWithTheRebuild():
                await WatchCommand.FollowAsync(call, view.Number, TimeSpan.FromSeconds(3));
                return true;
            case "x" or "show" when view.Run is { MayBeShown: true } run:
                Tell(call, await TryAsync(call, () => call.KeepAsync(view.Number, new SerialShown(run.Sheet.Id, step.Id))));
                return true;
            case "b" or "back" when RunCommands.Running(view).Visits is [.., var last]:
                // a step comes from a run
                Tell(call, await TryAsync(call, () => call.KeepAsync(view.Number, new StepTakenBack(view.Run!.Sheet.Id, last.Step))));
                return true;
            case "c" or "call":
                var seen = await call.AskAsync("      What do you see? > ");
                Tell(call, await TryAsync(call, () => call.KeepAsync(view.Number, new HelpCalled(seen))));
                return true;
            case var typed:
                if (view.Run?.Stop is { } stop)
                    call.Screen.Line($"      [bold]STOP:[/] {Screen.Safe(stop)} c calls a lead.");
                else if (Meant(step, typed) is { } answer)
                    Tell(call, await TryAsync(call, () => AnswerAsync(call, view, step, answer)));
                return true;
        }
    }

    /// <summary>What the machine's screen shows, bay by bay, as 'snapshot type' takes it; an empty line ends it.</summary>
    private static async Task TypeAsync(Call call, TicketView view)
    {
        var (bays, arrays) = (new List<string>(), new List<string>());
        call.Screen.Hint(
            "      Bay by bay as 7=SERIAL,member,good,vault or 7=empty; an array as vault=degraded. Bays not named stay as they were."
        );
        while ((await call.AskAsync("      > ")).Trim() is { Length: > 0 } said)
            ((view.Latest?.Arrays ?? []).Any(a => said.StartsWith($"{a.Name}=", StringComparison.Ordinal)) ? arrays : bays).Add(said);
        try
        {
            var seen = HandSnapshot.Of(await HandSnapshot.StartAsync(call, view), bays, arrays, DateTimeOffset.UtcNow);
            Tell(call, await TryAsync(call, () => call.KeepAsync(view.Number, new SnapshotTaken(seen))));
        }
        catch (UsageProblem no)
        {
            Complain(call, $"{no.Message} Nothing was kept.");
        }
    }

    /// <summary>Something else has happened: its sheet is followed first, and this one goes on after it. Or another takes its place.</summary>
    private static async Task OtherSheetAsync(Call call, TicketView view)
    {
        var others = await call.Client.OtherSheetsAsync(view.Number, call.Ct);
        for (var i = 0; i < others.Count; i++)
        {
            if (!others[i].IsRecovery && (i == 0 || others[i - 1].IsRecovery))
                call.Screen.Line("      Instead of this sheet; what both have and is done stays done:");
            var title = $"{others[i].Title}{(others[i].WasLeft ? " (where it was left)" : "")}";
            call.Screen.Hint($"      {i + 1}  {Screen.Safe(title)}{(others[i].WhyNot is { } no ? Screen.Safe($" - not now: {no}") : "")}");
        }
        var said = (await call.AskAsync("      Which one? Its number, or Enter for none > ")).Trim();
        if (!int.TryParse(said, out var nth) || nth < 1 || nth > others.Count)
            return;
        var other = others[nth - 1];
        var why = other.IsRecovery || other.WhyNot is not null ? null : (await call.AskAsync("      Why, in a sentence? > ")).Trim();
        Tell(call, await TryAsync(call, () => call.Client.StartRunAsync(view.Number, other.Procedure, call.Ct, because: why)));
    }

    private static async Task<Receipt> AnswerAsync(Call call, TicketView view, RunStep step, string answer)
    {
        // The service can reach the light where it can reach the machine; elsewhere a hand has switched it.
        if (step.Kind == StepKind.Light && view.Reachable)
            await call.Client.SwitchLightAsync(view.Number, step.Records == Records.LightOn, call.Ct);
        return await call.KeepAsync(view.Number, Answers.Body(view.Run!.Sheet, step, answer)); // a step comes from a run
    }

    /// <summary>An answer in full, its first letters, or nothing for "done"; null where it is none of this step's.</summary>
    private static string? Meant(RunStep step, string typed)
    {
        if (step.TakesText)
            return typed.Length == 0 ? null : typed;
        if (typed.Length == 0)
            return step.Answers.Any(a => a.Answer == RunStep.Done) ? RunStep.Done : null;
        var fits = step.Answers.Where(a => a.Answer.StartsWith(typed, StringComparison.OrdinalIgnoreCase)).ToList();
        return fits is [var one] ? one.Answer : typed;
    }

    private static string Prompt(TicketView view, RunStep step)
    {
        var ways = new List<string>();
        if (step.TakesText)
            ways.Add(
                step.Erases ? "type bay and serial"
                : step.Kind == StepKind.Scan ? "scan or type the serial"
                : step.Unit is { } unit ? $"type it, in {unit}"
                : "type it"
            );
        else
            ways.AddRange(
                step.Answers.Select(a =>
                    a.Answer != RunStep.Done ? a.Answer
                    : view.Run!.EndsHere ? "Enter to end it here"
                    : "Enter when done"
                )
            ); // it has a step
        if (step.Kind == StepKind.Gate)
            ways.AddRange(view.Reachable ? ["s snapshot", "t type what you see"] : ["t type what you see"]);
        if (step.Kind == StepKind.Light && view.Reachable)
            ways.Add("h done by hand");
        if (step.Gate.ComesWithTheRebuild())
            ways.Add("w watch");
        if (step.TakesText && step.Leading(RunStep.NotSo) is not null)
            ways.Add(RunStep.NotSo);
        if (view.Run is { MayBeShown: true })
            ways.Add("x show it first");
        if (view.Run is { Visits.Count: > 0 })
            ways.Add("b take the last answer back");
        ways.AddRange(["c call for help", "o something else happened", "q leave"]);
        return string.Join(" · ", ways);
    }

    /// <summary>A refusal is told and the step stays; only losing the service ends the run here.</summary>
    private static async Task<(Receipt? Receipt, string? No)> TryAsync(Call call, Func<Task<Receipt>> act)
    {
        try
        {
            return (await act(), null);
        }
        catch (ApiProblem no) when (no is { Status: not System.Net.HttpStatusCode.Unauthorized, IsFromBetween: false })
        {
            return (null, no.Message);
        }
        catch (Exception e) when (Silence.Is(e, call.Ct))
        {
            return (
                null,
                $"{call.Service} did not answer. It may have been kept all the same: look at the step before you answer it again."
            );
        }
    }

    private static void Tell(Call call, (Receipt? Receipt, string? No) outcome)
    {
        if (outcome.No is { } no)
            Complain(call, no);
        if (outcome.Receipt is { } kept)
            call.Show(
                kept,
                ContractJson.Default.Receipt,
                screen =>
                {
                    if (kept.Said is { } said)
                        screen.Line($"      {Screen.Safe(said)}");
                    foreach (var raised in kept.Raised)
                        screen.Line($"      [bold]! {Screen.Safe(raised.Sentence)}[/]");
                }
            );
    }

    /// <summary>What went wrong is told between two steps, and the run goes on.</summary>
    private static void Complain(Call call, string sentence)
    {
        if (call.Json)
            call.Screen.Error(sentence);
        else
            call.Screen.Line($"      [bold]{Screen.Safe(sentence)}[/]");
    }
}
