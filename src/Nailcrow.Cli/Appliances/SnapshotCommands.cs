using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Appliances;

internal static class SnapshotCommands
{
    public static Command Build() => new("snapshot", "All bays of a machine at a time.") { Take(), Write(), Difference() };

    private static Command Take()
    {
        var ticket = Said.Ticket();
        return new Command("take", "Ask the machine what is in which bay, and keep the answer.") { ticket }.Does(async call =>
            call.Show(await call.Client.TakeSnapshotAsync(call.Get(ticket), call.Ct), "the bays are on record."));
    }

    private static Command Write()
    {
        var ticket = Said.Ticket();
        var bays = new Option<string[]>("--bay") { Description = "LABEL=SERIAL,ROLE,HEALTH,ARRAY (the last three may be left out) or LABEL=empty. Repeat it.", HelpName = "BAY", AllowMultipleArgumentsPerToken = true };
        var arrays = new Option<string[]>("--array") { Description = "NAME=STATE. Repeat it.", HelpName = "ARRAY", AllowMultipleArgumentsPerToken = true };
        return new Command("write", "Keep what you see yourself: bays that are not named stay as last recorded.") { ticket, bays, arrays }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var start = view.Latest ?? HandSnapshot.Bare(await call.Client.ApplianceAsync(view.Report.Asset, call.Ct));
            var seen = HandSnapshot.Of(start, call.Get(bays) ?? [], call.Get(arrays) ?? [], DateTimeOffset.UtcNow);
            await call.WriteAsync(call.Get(ticket), new SnapshotTaken(seen), "the bays as you see them are on record.");
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
            call.Show([.. view.Changes], ContractJson.Default.BayChangeArray, screen =>
            {
                screen.Line($"[dim]before: {Telling.Clock(before.TakenAt, view.Zone)}; now: {Telling.Clock(view.Latest!.TakenAt, view.Zone)}[/]"); // a ticket with one before has a latest
                if (view.Changes.Count == 0)
                    screen.Line("Every bay is as it was.");
                foreach (var change in view.Changes)
                    screen.Line($"{(change.OtherDrive ? "[bold]other drive[/]" : "same drive ")}  {Screen.Safe(change.Sentence)}");
            });
        });
    }
}
