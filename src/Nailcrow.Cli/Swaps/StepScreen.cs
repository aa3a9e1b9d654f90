using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Shell;
using Nailcrow.Client.Tickets;
using Nailcrow.Core;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Swaps;

/// <summary>One step, as large as a terminal can say it.</summary>
internal static class StepScreen
{
    public static void Draw(Screen screen, TicketView view)
    {
        var run = RunCommands.Running(view);
        if (run.Current is not { } step)
        {
            screen.Line($"[bold]{TicketNumber.Text(view.Number)}: the run is at its end.[/]");
            screen.Next(view.Next);
            return;
        }
        var place = run.Sheet.Steps.TakeWhile(s => s.Id != step.Id).Count() + 1;
        screen.Line($"[dim]{TicketNumber.Text(view.Number)}  {Screen.Safe(step.Chapter)}  step {place} of {run.Sheet.Steps.Count}  {Screen.Safe(step.Id)}[/]");
        if (run.Bay is not null && view.Latest is { } latest)
            BayMap.Draw(screen, latest, view.Danger.Verdicts, view.Drawing, run.Bay);
        screen.Line($"[bold]{Words.Of(step.Kind).ToUpperInvariant(),-6}{Screen.Safe(step.Say)}[/]");
        Told(screen, "then see", step.See);
        Told(screen, "and hear", step.Hear);
        foreach (var normal in step.NormalNow ?? [])
            Told(screen, "normal now", normal);
        Told(screen, "if not", step.IfNot);
        if (run.Unmet is { } unmet)
            screen.Line($"      [bold]not yet:[/] {Screen.Safe(unmet)}");
        foreach (var limit in run.Limits)
            screen.Line($"      [bold]by {limit.Deadline.UtcDateTime:HH:mm:ss} UTC[/] answer '{Screen.Safe(limit.Until)}'");
    }

    private static void Told(Screen screen, string what, string? text)
    {
        if (text is not null)
            screen.Line($"      {what}: {Screen.Safe(text)}");
    }
}
