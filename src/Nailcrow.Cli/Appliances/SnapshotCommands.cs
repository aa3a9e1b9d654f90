using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Appliances;

internal static class SnapshotCommands
{
    public static Command Build() =>
        new("snapshot", "All bays of a machine at a time.") { Take(), Write(), List(), Compare(), Difference() };

    private static Command Take()
    {
        var ticket = Said.Ticket();
        return new Command("take", "Ask the machine what is in which bay, and keep the answer.") { ticket }.Does(async call =>
            call.Show(await call.Client.TakeSnapshotAsync(call.Get(ticket), call.Ct), "the bays are on record.")
        );
    }

    private static Command Write()
    {
        var ticket = Said.Ticket();
        var bays = new Option<string[]>("--bay")
        {
            Description = "LABEL=SERIAL,ROLE,HEALTH,ARRAY (the last three may be left out) or LABEL=empty. Repeat it.",
            HelpName = "BAY",
            AllowMultipleArgumentsPerToken = true,
        };
        var arrays = new Option<string[]>("--array")
        {
            Description = "NAME=STATE. Repeat it.",
            HelpName = "ARRAY",
            AllowMultipleArgumentsPerToken = true,
        };
        return new Command("write", "Keep what you see yourself: bays that are not named stay as last recorded.")
        {
            ticket,
            bays,
            arrays,
        }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var start = await HandSnapshot.StartAsync(call, view);
            var seen = HandSnapshot.Of(start, call.Get(bays) ?? [], call.Get(arrays) ?? [], DateTimeOffset.UtcNow);
            await call.WriteAsync(call.Get(ticket), new SnapshotTaken(seen), "the bays as you see them are on record.");
        });
    }

    private static Command List()
    {
        var asset = Said.Text("ASSET", "The appliance's asset number.");
        return new Command("list", "Every snapshot of a machine, newest first.") { asset }.Does(async call =>
        {
            var list = await call.Client.SnapshotsAsync(call.Get(asset), call.Ct);
            call.Show(
                list,
                ContractJson.Default.SnapshotList,
                screen =>
                {
                    if (list.Snapshots.Count == 0)
                        screen.Line("None yet.");
                    else
                        screen.Table(
                            ["snapshot", "taken", "by", "source"],
                            list.Snapshots.Select(s =>
                                new[]
                                {
                                    $"[bold]{TicketNumber.Text(s.Ticket)}/{s.Seq}[/]",
                                    Telling.Clock(s.At, null),
                                    Screen.Safe(s.By),
                                    Screen.Safe(s.Source),
                                }
                            )
                        );
                }
            );
        });
    }

    private static Command Compare()
    {
        var (before, after) = (
            Said.Text("BEFORE", "A snapshot, as 'snapshot list' names it: T-1002/5."),
            Said.Text("AFTER", "Another one.")
        );
        return new Command("compare", "What differs between any two snapshots.") { before, after }.Does(async call =>
        {
            var found = await call.Client.CompareAsync(call.Get(before), call.Get(after), call.Ct);
            call.Show(
                found,
                ContractJson.Default.SnapshotDifference,
                screen =>
                {
                    if (found.Changes.Count == 0)
                        screen.Line("Every bay is as it was.");
                    foreach (var change in found.Changes)
                        screen.Line($"{(change.OtherDrive ? "[bold]other drive[/]" : "same drive ")}  {Screen.Safe(change.Sentence)}");
                }
            );
        });
    }

    private static Command Difference()
    {
        var ticket = Said.Ticket();
        return new Command("difference", "What differs between the snapshot before and the last one.") { ticket }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            if (view.Before is not { } before)
                throw new Refusal($"{TicketNumber.Text(view.Number)} has no snapshot yet.");
            call.Show(
                [.. view.Changes],
                ContractJson.Default.BayChangeArray,
                screen =>
                {
                    screen.Line(
                        $"[dim]before: {Telling.Clock(before.TakenAt, view.Zone)}; now: {Telling.Clock(view.Latest!.TakenAt, view.Zone)}[/]"
                    ); // a ticket with one before has a latest
                    if (view.Changes.Count == 0)
                        screen.Line("Every bay is as it was.");
                    foreach (var change in view.Changes)
                        screen.Line($"{(change.OtherDrive ? "[bold]other drive[/]" : "same drive ")}  {Screen.Safe(change.Sentence)}");
                }
            );
        });
    }
}
