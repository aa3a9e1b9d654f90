using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Cli.Swaps;

/// <summary>One step, as large as a terminal can say it.</summary>
internal static class StepScreen
{
    public static void Draw(Screen screen, TicketView view)
    {
        var run = RunCommands.Running(view);
        if (run.Current is not { } step)
        {
            screen.Line(
                $"[bold]{TicketNumber.Text(view.Number)}: {(run.HandedOver ? "the run was handed over" : "the run is at its end")}.[/]"
            );
            screen.Next(view.Next);
            return;
        }
        if (run.Withdrawn is { } withdrawn)
            screen.Line(
                $"[bold]! This version of '{Screen.Safe(run.Sheet.Procedure)}' was withdrawn: {Screen.Safe(withdrawn)} Call before you go on.[/]"
            );
        if (run.Outdated is { } outdated)
            screen.Line(
                $"[bold]! {Screen.Safe(outdated)} 'nailcrow run start {TicketNumber.Text(view.Number)}' goes on with it; what was done is carried over.[/]"
            );
        if (run.Interrupts is { } interrupts)
            screen.Line($"[dim]'{Screen.Safe(interrupts)}' goes on after this.[/]");
        var chapter = run.Place is { } place ? $", chapter {place.Nth} of {place.Count}" : "";
        screen.Line($"[dim]{TicketNumber.Text(view.Number)}  {Screen.Safe(step.Chapter)}{chapter}  ({Screen.Safe(step.Id)})[/]");
        screen.Line($"[bold]{Screen.Safe(step.Say)}[/]");
        if (run.Bay is not null && view.Latest is { } latest)
            BayMap.Draw(screen, latest, view.Danger.Verdicts, view.Drawing, run.Bay);
        if (run.LastScan is { } scan)
            Beside(screen, scan);
        Told(screen, step.Kind == StepKind.Look ? "look for" : "then see", step.See);
        Told(screen, "and hear", step.Hear);
        foreach (var normal in step.NormalNow ?? [])
            Told(screen, "normal now", normal);
        Told(screen, "if not", step.IfNot);
        if (run.Heard is { Answer: { } said, GoAhead: { } go } help)
            screen.Line(
                $"      [bold]{Screen.Safe(help.AnsweredBy)}, asked '{Screen.Safe(help.Reason)}':[/] {(go ? "go on" : "do not go on")}. {Screen.Safe(said)}"
            );
        else if (view.Help is { IsOpen: true } call)
            screen.Line($"      [bold]a lead was called:[/] {Screen.Safe(call.Reason)} [dim](no answer yet)[/]");
        if (step.Decides is { } role)
            screen.Line($"      [bold]a {Words.Of(role)} decides this[/]");
        if (step.Unit is { } unit)
            screen.Line(
                $"      in {unit}{(step.AtLeast is { } low ? $", at least {low}" : "")}{(step.AtMost is { } high ? $", at most {high}" : "")}"
            );
        if (step.With is { } with)
            screen.Line($"      say: {Screen.Safe(string.Join(", ", with))}");
        if (run.MayBeUnreadable)
            screen.Line("      cannot be read? answer 'unreadable': the machine is asked which serial is gone");
        if (run.MapWarning is { } map)
            screen.Line($"      [bold]which bay is which:[/] {Screen.Safe(map)}");
        if (run.Stop is { } stop)
            screen.Line($"      [bold]STOP:[/] {Screen.Safe(stop)} Call a lead: with their word you may go on.");
        else if (run.Unmet is { } unmet)
            screen.Line($"      [bold]not yet:[/] {Screen.Safe(unmet)}");
        foreach (var open in run.DoesNotAgree ?? [])
            screen.Line($"      [bold]does not agree:[/] {Screen.Safe(open)} A lead settles it before the end.");
        foreach (var limit in run.Limits)
            screen.Line($"      [bold]by {limit.Deadline.UtcDateTime:HH:mm:ss} UTC[/] answer '{Screen.Safe(limit.Until)}'");
        if (run.Then is { } then)
            screen.Line($"[dim]      then: {Screen.Safe(then)}[/]");
    }

    /// <summary>What was read above what was expected, with a mark under each place that differs.</summary>
    private static void Beside(Screen screen, LastScan scan)
    {
        screen.Line($"      read      {Screen.Safe(scan.Read)}");
        screen.Line($"      expected  {Screen.Safe(scan.Expected)}");
        if (scan.Differs.Count > 0)
            screen.Line(
                $"                {string.Concat(Enumerable.Range(0, scan.Differs[^1] + 1).Select(i => scan.Differs.Contains(i) ? '^' : ' '))}"
            );
    }

    private static void Told(Screen screen, string what, string? text)
    {
        if (text is not null)
            screen.Line($"      {what}: {Screen.Safe(text)}");
    }
}
