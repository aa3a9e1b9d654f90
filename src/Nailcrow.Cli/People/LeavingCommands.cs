using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.People;

/// <summary>Somebody leaves: what they lead and hold goes to others first.</summary>
internal static class LeavingCommands
{
    public static Command Holds()
    {
        var name = PersonCommands.Name();
        return new Command("holds", "What somebody leads and has: open tickets, parts in hand and in the van.") { name }.Does(async call =>
        {
            var held = await call.Client.HoldsAsync(call.Get(name), call.Ct);
            call.Show(held, ContractJson.Default.PersonHolds, screen => Draw(screen, call.Get(name), held));
        });
    }

    public static Command HandOver()
    {
        var name = PersonCommands.Name("Whose tickets.");
        var to = Said.Needed("--to", "Who has them from now on.", "ENGINEER");
        var note = Said.Optional("--note", "What they should know.", "TEXT");
        return new Command("hand-over", "Give all open tickets of somebody to another engineer; takes the role dispatcher or lead.")
        {
            name,
            to,
            note,
        }.Does(async call =>
        {
            var over = await call.Client.HandOverAllAsync(call.Get(name), call.Said(to), call.Get(note), call.Ct);
            call.Show(
                over,
                ContractJson.Default.HandedOverAll,
                screen =>
                {
                    screen.Line(
                        over.Tickets.Count == 0
                            ? $"No ticket of {Screen.Safe(over.From)} was handed over."
                            : $"{Screen.Safe(over.To)} has {string.Join(", ", over.Tickets.Select(TicketNumber.Text))} now."
                    );
                    foreach (var refused in over.Refused)
                        screen.Line($"[bold]![/] {Screen.Safe(refused)}");
                }
            );
        });
    }

    public static Command Leave()
    {
        var name = PersonCommands.Name();
        var because = Said.Needed("--because", "Why; it is kept with it.", "TEXT");
        return new Command("leave", "Somebody leaves the firm; refused while they lead or hold anything.") { name, because }.Does(
            async call =>
            {
                var person = await call.Client.PersonLeavesAsync(call.Get(name), call.Said(because), call.Ct);
                call.ShowChanged(
                    person,
                    $"{Screen.Safe(person.FullName)} ({Screen.Safe(person.Name)}) has left; what they wrote stays theirs."
                );
            }
        );
    }

    public static void Draw(Screen screen, string name, PersonHolds held)
    {
        if (held.Nothing)
        {
            screen.Line($"{Screen.Safe(name)} leads no open ticket and holds nothing.");
            return;
        }
        if (held.Tickets.Count > 0)
        {
            screen.Table(
                ["ticket", "stage", "where", "what"],
                held.Tickets.Select(t =>
                    new[] { TicketNumber.Text(t.Number), Words.Of(t.Stage), Screen.Safe($"{t.Asset}, {t.Site}"), Screen.Safe(t.Symptom) }
                )
            );
            screen.Line($"  [bold]Next[/]: nailcrow person hand-over {Screen.Safe(name)} --to ENGINEER");
        }
        if (held.Parts.Count > 0)
        {
            screen.Table(
                ["part", "model", "where"],
                held.Parts.Select(p => new[] { Screen.Safe(p.Serial), Screen.Safe(p.Model), Screen.Safe(p.Holder.ToString()) })
            );
            screen.Line("  [bold]Next[/]: nailcrow stock take-back SERIAL");
        }
        foreach (var supply in held.Supplies)
            screen.Line($"in the van: {Screen.Safe(supply)}");
    }
}
