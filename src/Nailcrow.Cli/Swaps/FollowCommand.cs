using Nailcrow.Core.Tickets.Telling;
using System.CommandLine;
using Nailcrow.Cli.Rebuilds;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Cli.Swaps;

/// <summary>The whole run at the keyboard: a step, an answer, the next step. Leaving it loses nothing; any other way of following goes on from there.</summary>
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
                    StepScreen.Draw(call.Screen, view);
                    if (RunCommands.Running(view).Current is not { } step || !await AskAsync(call, view, step))
                        return;
                    call.Screen.Line();
                }
            }
        );
    }

    private static Task<TicketView> AgainAsync(Call call, TicketView view) =>
        view.Run is { } run ? call.Client.TicketAsync(view.Number, run.Sheet, call.Ct) : call.Client.TicketAsync(view.Number, call.Ct);

    /// <summary>False when the person leaves.</summary>
    private static async Task<bool> AskAsync(Call call, TicketView view, RunStep step)
    {
        switch (call.Screen.Ask($"      {Prompt(view, step)} > ").Trim())
        {
            case "q" or "leave":
                return false;
            case "s" or "snapshot":
                Tell(call, await TryAsync(() => call.Client.TakeSnapshotAsync(view.Number, call.Ct)));
                return true;
            case "w" or "watch" when step.Gate is GateFact.ArrayWhole or GateFact.DriveJoined or GateFact.RebuildSeen:
                await WatchCommand.FollowAsync(call, view.Number, TimeSpan.FromSeconds(3));
                return true;
            case "b" or "back" when RunCommands.Running(view).Visits is [.., var last]:
                Tell(call, await TryAsync(() => call.KeepAsync(view.Number, new StepTakenBack(view.Run!.Sheet.Id, last.Step)))); // a step comes from a run
                return true;
            case "c" or "call":
                Tell(call, await TryAsync(() => call.KeepAsync(view.Number, new HelpCalled(call.Screen.Ask("      What do you see? > ")))));
                return true;
            case var typed:
                if (Meant(step, typed) is { } answer)
                    Tell(call, await TryAsync(() => AnswerAsync(call, view, step, answer)));
                return true;
        }
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
            ways.AddRange(step.Answers.Select(a => a.Answer == RunStep.Done ? "Enter when done" : a.Answer));
        if (step.Kind == StepKind.Gate && view.Reachable)
            ways.Add("s snapshot");
        if (step.Gate is GateFact.ArrayWhole or GateFact.DriveJoined or GateFact.RebuildSeen)
            ways.Add("w watch");
        if (step.TakesText && step.Leading(RunStep.NotSo) is not null)
            ways.Add(RunStep.NotSo);
        if (view.Run is { Visits.Count: > 0 })
            ways.Add("b take the last answer back");
        ways.AddRange(["c call for help", "q leave"]);
        return string.Join(" · ", ways);
    }

    /// <summary>A refusal is told and the step stays; only losing the service ends the run here.</summary>
    private static async Task<(Receipt? Receipt, string? No)> TryAsync(Func<Task<Receipt>> act)
    {
        try
        {
            return (await act(), null);
        }
        catch (ApiProblem no) when (no.Status is not System.Net.HttpStatusCode.Unauthorized)
        {
            return (null, no.Message);
        }
    }

    private static void Tell(Call call, (Receipt? Receipt, string? No) outcome)
    {
        if (outcome.No is { } no)
            call.Screen.Line($"      [bold]{Screen.Safe(no)}[/]");
        if (outcome.Receipt?.Said is { } said)
            call.Screen.Line($"      {Screen.Safe(said)}");
        foreach (var raised in outcome.Receipt?.Raised ?? [])
            call.Screen.Line($"      [bold]! {Screen.Safe(raised.Sentence)}[/]");
    }
}
