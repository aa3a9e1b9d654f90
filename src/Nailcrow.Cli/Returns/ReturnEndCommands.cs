using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Tickets;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Returns;

/// <summary>How a drive's way ends: kept, destroyed, lost, or settled with whoever it went to.</summary>
internal static class ReturnEndCommands
{
    public static Command Settle()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive that went back."));
        var outcome = Said.Text("OUTCOME", $"What came of it: {string.Join(", ", Enum.GetValues<Outcome>().Select(o => Words.Of(o)))}.");
        var amount = Said.Optional("--amount", "With its currency, as \"140.00 EUR\".", "AMOUNT");
        var note = Said.Optional("--note", "What they say; where a claim is refused, why.", "TEXT");
        return new Command("settle", "Write down what came of a return.") { ticket, serial, outcome, amount, note }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new ReturnSettled(
                    call.Get(serial),
                    Words.Parse<Outcome>(call.Get(outcome), "outcome").Is(out var said, out var reason)
                        ? said
                        : throw new UsageProblem(reason),
                    call.Get(amount),
                    call.Get(note)
                ),
                $"the return of {call.Get(serial)} is settled."
            )
        );
    }

    public static Command Inspect()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive that came back."));
        var found = Said.OneOf<InspectionFinding>("--found", "What you found; left out, that it is as announced.", "finding");
        var note = Said.Optional("--note", "What you saw; needed where it is not as announced.", "TEXT");
        return new Command("inspect", "Stores has looked at what came back.") { ticket, serial, found, note }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new ReturnInspected(call.Get(serial), call.Get(found) ?? InspectionFinding.AsAnnounced, call.Get(note)),
                $"{call.Get(serial)} was looked at."
            )
        );
    }

    public static Command Kept()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive that stays with the customer."));
        var name = Said.Text("NAME", "Who there took it.");
        var note = Said.Optional("--note", "What was agreed.", "TEXT");
        return new Command("kept", "The customer keeps the drive: write down who took it.") { ticket, serial, name, note }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new DriveKept(call.Get(serial), call.Get(name), call.Get(note)),
                $"{call.Get(serial)} stays with the customer."
            )
        );
    }

    public static Command Destroyed()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive that was destroyed."));
        var method = Said.Text("METHOD", "How: shredded, drilled through, crushed.");
        var witness = Said.Needed("--seen-by", "Who saw it.", "NAME");
        var certificate = Said.Optional("--certificate", "Its number.", "NUMBER");
        return new Command("destroyed", "Write down that a drive was destroyed, how and before whom.")
        {
            ticket,
            serial,
            method,
            witness,
            certificate,
        }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new DriveDestroyed(call.Get(serial), call.Get(method), call.Get(witness)!, call.Get(certificate)),
                $"{call.Get(serial)} is destroyed."
            )
        );
    }

    public static Command Lost()
    {
        var (ticket, serial) = (Said.Ticket(), Said.Text("SERIAL", "The drive or part that is lost."));
        var because = Said.Text("REASON", "How it was lost, and what was done to find it.");
        var onIt = Said.Needed("--on-it", "What was on it: whose data, or none.", "TEXT");
        return new Command("lost", "Write a drive or part off as lost; a lead does.") { ticket, serial, because, onIt }.Does(call =>
            call.WriteAsync(
                call.Get(ticket),
                new PartLost(call.Get(serial), call.Get(because), call.Get(onIt)!),
                $"{call.Get(serial)} is written off."
            )
        );
    }
}
