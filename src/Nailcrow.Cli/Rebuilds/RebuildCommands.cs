using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Cli.Rebuilds;

internal static class RebuildCommands
{
    public static Command Build() =>
        new("rebuild", "The machine restoring its redundancy.") { Show(), Read(), TakeBack(), Way(), WatchCommand.Build() };

    private static Command Show()
    {
        var ticket = Said.Ticket();
        return new Command("show", "How far it is, and how long it may take, as a range.") { ticket }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            call.Show(view.Rebuild, ContractJson.Default.RebuildView, screen => Draw(screen, view));
        });
    }

    private static Command Read()
    {
        var ticket = Said.Ticket();
        var percent = new Option<decimal?>("--percent")
        {
            Description = "What the screen shows, 0 to 100, with its decimals.",
            HelpName = "PERCENT",
        };
        var phase = Said.OneOf<RebuildPhase>("--phase", "What it is doing; default rebuilding.", "phase");
        var progress = Said.OneOf<Progress>("--progress", "Default running.", "progress");
        return new Command("read", "Keep a reading: yours if you say one, else the machine's own.")
        {
            ticket,
            percent,
            phase,
            progress,
        }.Does(async call =>
        {
            if ((call.Get(percent), call.Get(phase), call.Get(progress)) is (null, null, null))
            {
                call.Show(await call.Client.TakeReadingAsync(call.Get(ticket), call.Ct), "the machine's reading is on record.");
                return;
            }
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var array =
                view.Run?.Sheet.Array
                ?? view.Danger.Array
                ?? throw new Refusal("Which array rebuilds is not known yet; take a snapshot first.");
            await call.WriteAsync(
                view.Number,
                new ReadingTaken(
                    array,
                    call.Get(progress) ?? Progress.Running,
                    call.Get(phase) ?? RebuildPhase.Rebuilding,
                    Reading.Person,
                    call.Get(percent)
                ),
                "your reading is on record."
            );
        });
    }

    private static Command TakeBack()
    {
        var ticket = Said.Ticket();
        return new Command("take-back", "The last reading that was typed is a slip: it stays in the journal and counts no more.")
        {
            ticket,
        }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var move =
                view.Moves.FirstOrDefault(m => m.Move == Move.TakeBackReading)
                ?? throw new Refusal($"Nobody typed a reading on {TicketNumber.Text(view.Number)}; what a machine said is not taken back.");
            await call.WriteAsync(view.Number, move.Body!, "the reading counts no more.");
        });
    }

    private static Command Way()
    {
        var ticket = Said.Ticket();
        var copies = Said.OneOf<RebuildCopies>("--copies", "As was chosen at the machine: whole-member or used-space.", "way");
        var agreed = Said.Optional("--agreed", "What was agreed about load while it runs, and by whom.", "TEXT");
        return new Command("way", "Say how much the rebuild copies; the time left goes by it.") { ticket, copies, agreed }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new RebuildChosen(call.Get(copies) ?? throw new UsageProblem("Say --copies whole-member or used-space."), call.Get(agreed)),
                "on record."
            )
        );
    }

    internal static void Draw(Screen screen, TicketView view)
    {
        screen.Line(
            $"[bold]{TicketNumber.Text(view.Number)}[/] {Screen.Safe(view.Run?.Sheet.Array)}: "
                + $"{Words.Of(view.Rebuild.Look.State)}. {Screen.Safe(view.Rebuild.Look.Sentence)}"
        );
        if (view.Rebuild.Chosen is { } chosen)
            screen.Line(Screen.Safe(chosen));
        screen.Table(
            ["read (UTC)", "phase", "percent", "by"],
            view.Rebuild.Readings.TakeLast(12)
                .Select(r =>
                    new[]
                    {
                        $"{r.At.UtcDateTime:MM-dd HH:mm:ss}",
                        r.Progress == Progress.Running ? Words.Of(r.Phase) : Words.Of(r.Progress),
                        r.Percent is { } p ? $"{p, 6} {Bar(p)}" : "",
                        Screen.Safe(r.Source),
                    }
                )
        );
    }

    private static string Bar(decimal percent) => new string('█', (int)(percent / 5)).PadRight(20, '·');
}
