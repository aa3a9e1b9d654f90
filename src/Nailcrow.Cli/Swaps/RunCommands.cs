using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Cli.Swaps;

/// <summary>Following a run sheet.</summary>
internal static class RunCommands
{
    public static Command Build() =>
        new("run", "The run sheet, followed.")
        {
            Start(),
            FollowCommand.Build(),
            Step(),
            Answer(),
            Undo(),
            ShowFirst(),
            Overrule(),
            Sheet(),
            PaperCommand.Build(),
        };

    private static Command Start()
    {
        var ticket = Said.Ticket();
        var procedure = Said.Optional("--procedure", "Which one; default: the one written for the model.", "ID");
        var because = Said.Optional("--because", "Why the run that is under way is left for it; it stands in the record.", "TEXT");
        return new Command("start", "Have the run sheet made for this machine and this drive, or go over to another one.")
        {
            ticket,
            procedure,
            because,
        }.Does(async call =>
            call.Show(
                await call.Client.StartRunAsync(call.Get(ticket), call.Get(procedure), call.Ct, because: call.Get(because)),
                "the run sheet is made."
            )
        );
    }

    private static Command Step()
    {
        var ticket = Said.Ticket();
        return new Command("step", "The step to do now.") { ticket }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            call.Show(view, ContractJson.Default.TicketView, screen => StepScreen.Draw(screen, view));
        });
    }

    private static Command Answer()
    {
        var ticket = Said.Ticket();
        var answer = new Argument<string>("ANSWER")
        {
            Description = "What was seen, read or scanned. Left out: done; what has to be read is never left out.",
            DefaultValueFactory = _ => "",
        };
        var step = Said.Optional(
            "--step",
            "The step you believe you answer; if the run has moved on, your answer is kept and questioned.",
            "ID"
        );
        return new Command("answer", "Answer the step to do now, or go on past a gate, a hold or a call.") { ticket, answer, step }.Does(
            async call =>
            {
                var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
                var run = Running(view);
                var which = call.Get(step) is { } named
                    ? run.Sheet.Step(named)
                        ?? throw new UsageProblem($"The sheet has no step '{named}'; the run stands at '{run.Current?.Id ?? "its end"}'.")
                    : run.Current ?? throw new Refusal("The run is at its end; nothing is left to answer.");
                // What was done elsewhere is recorded whatever is thought of it; it is named by its step then.
                if (call.Get(step) is null && run.Stop is { } stop)
                    throw new Refusal($"Stop: {stop} Call a lead, with 'ticket call'; with their word you may go on.");
                var said =
                    call.Get(answer) is { Length: > 0 } given ? given
                    : which.TakesText ? throw new UsageProblem($"'{which.Id}' asks for what you read; say it: {which.Say}")
                    : RunStep.Done;
                var receipt = await call.KeepAsync(view.Number, Answers.Body(run.Sheet, which, said));
                call.Show(receipt, $"{which.Id}: {said}.");
            }
        );
    }

    private static Command ShowFirst()
    {
        var ticket = Said.Ticket();
        return new Command("show-serial", "See the serial before you read it; that you did is on record.") { ticket }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var run = Running(view);
            if (run is not { MayBeShown: true, Current: { } step })
                throw new Refusal("The run asks for no serial now, or it is shown already; 'nailcrow run step' tells where it stands.");
            await call.KeepAsync(view.Number, new SerialShown(run.Sheet.Id, step.Id));
            var shown = await call.Client.TicketAsync(view.Number, call.Ct);
            call.Show(shown, ContractJson.Default.TicketView, screen => StepScreen.Draw(screen, shown));
        });
    }

    private static Command Undo()
    {
        var ticket = Said.Ticket();
        return new Command("undo", "Take the last answer back: it stays in the journal, and the step is answered again.") { ticket }.Does(
            async call =>
            {
                var run = Running(await call.Client.TicketAsync(call.Get(ticket), call.Ct));
                var last = run.Visits.LastOrDefault() ?? throw new Refusal("Nothing has been answered yet.");
                await call.WriteAsync(call.Get(ticket), new StepTakenBack(run.Sheet.Id, last.Step), $"{last.Step} is answered again.");
            }
        );
    }

    private static Command Overrule()
    {
        var (ticket, reason) = (Said.Ticket(), Said.Text("REASON", "Why; it shows in the record for good."));
        return new Command("overrule", "As a lead: go on although the step's condition does not hold.") { ticket, reason }.Does(
            async call =>
            {
                var run = Running(await call.Client.TicketAsync(call.Get(ticket), call.Ct));
                var current = run.Current ?? throw new Refusal("The run is at its end; there is nothing to overrule.");
                await call.WriteAsync(
                    call.Get(ticket),
                    new StepOverruled(run.Sheet.Id, current.Id, call.Get(reason)),
                    $"{current.Id} is overruled."
                );
            }
        );
    }

    private static Command Sheet()
    {
        var ticket = Said.Ticket();
        return new Command("sheet", "The whole run sheet, with what was answered.") { ticket }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var run = Running(view);
            call.Show(
                view,
                ContractJson.Default.TicketView,
                screen =>
                {
                    screen.Line($"[bold]{Screen.Safe(run.Sheet.Title)}[/]  {Screen.Safe(run.Sheet.Procedure)} {run.Sheet.Version}");
                    foreach (var chapter in run.Sheet.Steps.GroupBy(s => s.Chapter))
                    {
                        screen.Line($"\n[bold]{Screen.Safe(chapter.Key)}[/]");
                        foreach (var step in chapter)
                            screen.Line(
                                $"{At(run, step)}{Words.Of(step.Kind), -6}{Screen.Safe(step.Say)}{Screen.Safe(Answered(run, step))}"
                            );
                    }
                }
            );
        });
    }

    /// <summary>Where the run stands, and where it has been.</summary>
    private static string At(RunView run, RunStep step) =>
        step.Id == run.Current?.Id ? "► "
        : run.Visits.Any(v => v.Step == step.Id) ? "✓ "
        : "  ";

    internal static RunView Running(TicketView view) =>
        view.Run
        ?? throw new Refusal(
            $"{TicketNumber.Text(view.Number)} has no run sheet yet; 'nailcrow run start {TicketNumber.Text(view.Number)}' makes it."
        );

    private static string Answered(RunView run, RunStep step) =>
        run.Visits.LastOrDefault(v => v.Step == step.Id) is { } visit && visit.Answer != RunStep.Done ? $"  [{visit.Answer}]" : "";
}
