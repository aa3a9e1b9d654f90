using System.CommandLine;
using Nailcrow.Cli.Intake;
using Nailcrow.Cli.Reports;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Swaps;
using Nailcrow.Cli.Tickets.Planning;
using Nailcrow.Client;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Linking;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Cli.Tickets;

/// <summary>One ticket, from the report to its closing.</summary>
internal static class TicketCommands
{
    public static Command Build() =>
        new("ticket", "One ticket.")
        {
            ReportCommand.Build(),
            TicketShowCommand.Build(),
            MovesCommand.Build(),
            JournalCommand.Build(),
            CorrectCommand.Build(),
            Take(),
            HandOver(),
            Assign(),
            OneSentence("note", "Write something down.", "What to remember.", text => new NoteWritten(text), "noted."),
            EvidenceCommand.Build(),
            DrivesCommand.Build(),
            PhotoCommand.Build(),
            DeskCommands.Plan(),
            DeskCommands.Hold(),
            Plain("resume", "Lift the hold.", () => new HoldLifted(), "the hold is lifted."),
            Plain("arrive", "Say that you have arrived at the site.", () => new ArrivedOnSite(), "arrived on site."),
            Leave(),
            Advise(),
            PowerCommand.Build(),
            AsideCommand.Build(),
            Join(),
            Link(),
            OneSentence(
                "call",
                "Call a lead: something is not as it should be.",
                "What you see.",
                text => new HelpCalled(text),
                "a lead is called."
            ),
            Answer(),
            Settle(),
            SignOff(),
            CloseCommand.Build(),
            ServiceReportCommand.Build(),
            ProposalCommand.Build(),
            Prove(),
            OneSentence(
                "reopen",
                "As a lead: make a closed or cancelled one work again.",
                "Why.",
                text => new TicketReopened(text),
                "open again."
            ),
            OneSentence(
                "cancel",
                "Cancel it; only while no drive has been moved.",
                "Why.",
                text => new TicketCancelled(text),
                "cancelled."
            ),
        };

    private static Command Take()
    {
        var ticket = Said.Ticket();
        return new Command("take", "Assign it to yourself.") { ticket }.Does(async call =>
        {
            var me = await call.Client.MeAsync(call.Ct);
            await call.WriteAsync(call.Get(ticket), new EngineerAssigned(me.Name), $"taken by {me.Name}.");
        });
    }

    private static Command Assign()
    {
        var (ticket, name) = (Said.Ticket(), Said.Text("ENGINEER", "The engineer's sign-in name."));
        return new Command("assign", "Assign it to an engineer.") { ticket, name }.Does(call =>
            call.WriteAsync(call.Get(ticket), new EngineerAssigned(call.Get(name)), $"assigned to {call.Get(name)}.")
        );
    }

    private static Command HandOver()
    {
        var (ticket, name) = (Said.Ticket(), Said.Text("ENGINEER", "Who goes on."));
        var note = Said.Optional("--note", "What they have to know: keys, who let one in, what is open.", "TEXT");
        return new Command("hand-over", "Give run, parts and old drives to another engineer, in one entry of both.")
        {
            ticket,
            name,
            note,
        }.Does(async call =>
        {
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            var from = view.Engineer ?? throw new Refusal("Nobody has the ticket; assign an engineer.");
            await call.WriteAsync(
                view.Number,
                new HandedOver(from, call.Get(name), call.Get(note)),
                $"{call.Get(name)} goes on, and has what {from} had."
            );
        });
    }

    private static Command Leave()
    {
        var ticket = Said.Ticket();
        var why = Said.OneOf<VisitEnd>("--why", "Why you leave; default another-day.", "reason to leave");
        var learnt = Said.Optional("--learnt", "What the next one has to know: who opens, what is in the way.", "TEXT");
        return new Command("leave", "Say that you leave the site; what is not done is planned again.") { ticket, why, learnt }.Does(call =>
            call.WriteAsync(call.Get(ticket), new LeftSite(call.Get(why) ?? VisitEnd.AnotherDay, call.Get(learnt)), "left the site.")
        );
    }

    private static Command Advise()
    {
        var (ticket, text) = (Said.Ticket(), Said.Text("TEXT", "What they should do: a spare, a backup, another drive."));
        var decided = Said.Optional("--decided", "What the customer decided, and who of them.", "TEXT");
        return new Command("advise", "Advise the customer; the report tells it, with who decided.") { ticket, text, decided }.Does(call =>
        {
            var advice = new AdviceGiven(call.Get(text), call.Get(decided));
            return call.WriteAsync(call.Get(ticket), advice, "advised.");
        });
    }

    private static Command Join()
    {
        var (ticket, into) = (Said.Ticket(), Said.Ticket("INTO"));
        return new Command("join", "It is the same fault as another open ticket of the machine: this one ends, its evidence goes over.")
        {
            ticket,
            into,
        }.Does(call =>
            call.WriteAsync(call.Get(ticket), new TicketJoined(call.Get(into)), $"goes on as {TicketNumber.Text(call.Get(into))}.")
        );
    }

    private static Command Link()
    {
        var (ticket, other) = (Said.Ticket(), Said.Ticket("OTHER"));
        var how = Said.OneOf<LinkKind>(
            "--how",
            "What the other one is to it: same-visit, repeat-of or after. Default same-visit.",
            "kind of link"
        );
        return new Command("link", "It has to do with another ticket; both say so.") { ticket, other, how }.Does(call =>
        {
            var link = new TicketLinked(call.Get(other), call.Get(how) ?? LinkKind.SameVisit);
            return call.WriteAsync(call.Get(ticket), link, $"{link.Told()}.");
        });
    }

    private static Command Answer()
    {
        var (ticket, reason) = (Said.Ticket(), Said.Text("REASON", "What the engineer goes by."));
        var yes = new Option<bool>("--go-ahead") { Description = "They may go on." };
        var no = new Option<bool>("--refuse") { Description = "They may not." };
        return new Command("answer", "Answer a call for help, as a lead.") { ticket, reason, yes, no }.Does(call =>
            call.Get(yes) == call.Get(no)
                ? throw new UsageProblem("Say one of --go-ahead and --refuse.")
                : call.WriteAsync(
                    call.Get(ticket),
                    new HelpAnswered(call.Get(yes), call.Get(reason)),
                    call.Get(yes) ? "they may go on." : "they may not go on."
                )
        );
    }

    private static Command Settle()
    {
        var (ticket, id, how) = (
            Said.Ticket(),
            Said.Text("DISCREPANCY", "Its id, as 'ticket show' gives it."),
            Said.Text("HOW", "How it is to be read.")
        );
        return new Command("settle", "Settle a contradiction in the record, as a lead, in writing.") { ticket, id, how }.Does(call =>
            call.WriteAsync(call.Get(ticket), new DiscrepancySettled(call.Get(id), call.Get(how)), $"{call.Get(id)} is settled.")
        );
    }

    private static Command Prove()
    {
        var ticket = Said.Ticket();
        var into = Said.Optional("--into", "Where to write it; left out, the terminal.", "FILE");
        return new Command("prove", "Its entries with the way to the newest seal, in a file that anybody can check offline.")
        {
            ticket,
            into,
        }.Does(async call =>
        {
            var proof = await call.Client.ProveAsync(call.Get(ticket), call.Ct);
            if (call.Get(into) is not { } file)
            {
                call.Screen.Json(proof, ContractJson.Default.TicketProof);
                return;
            }
            await NewFiles.WriteAsync(file, System.Text.Json.JsonSerializer.Serialize(proof, ContractJson.Default.TicketProof), call.Ct);
            call.Screen.Line(
                $"{Screen.Safe(Path.GetFullPath(file))}: {proof.Entries.Count} entries of {Screen.Safe(proof.Ticket)}, "
                    + "proved by a seal. 'node docs/check-proof.mjs FILE' checks it; docs/journal.md tells how."
            );
        });
    }

    private static Command SignOff()
    {
        var (ticket, name) = (Said.Ticket(), Said.Text("NAME", "Who signs for the customer."));
        var statement = Said.Optional("--statement", "What they say, in their words.", "TEXT");
        var signature = Said.Optional("--signature", "Their signature, a PNG or JPEG: kept with the report as it is now.", "FILE");
        return new Command("sign-off", "The customer has seen that the data is there.") { ticket, name, statement, signature }.Does(call =>
            call.Get(signature) is { } file
                ? SignAsync(call, call.Get(ticket), call.Get(name), call.Get(statement), file)
                : call.WriteAsync(
                    call.Get(ticket),
                    new CustomerSignedOff(call.Get(name), call.Get(statement)),
                    $"signed off by {call.Get(name)}."
                )
        );
    }

    private static async Task SignAsync(Call call, long ticket, string name, string? statement, string file)
    {
        await using var picture = File.OpenRead(file);
        var text = await call.Client.ToSignAsync(ticket, call.Ct);
        var receipt = await call.Client.SignAsync(ticket, Guid.CreateVersion7(), name, statement, text.Sha256, picture, call.Ct);
        call.Show(
            receipt,
            ContractJson.Default.Receipt,
            screen => screen.Line($"{TicketNumber.Text(ticket)}: signed by {Screen.Safe(name)}, over the report {text.Sha256[..12]}.")
        );
    }

    private static Command Plain(string verb, string says, Func<EntryBody> body, string done)
    {
        var ticket = Said.Ticket();
        return new Command(verb, says) { ticket }.Does(call => call.WriteAsync(call.Get(ticket), body(), done));
    }

    private static Command OneSentence(string verb, string says, string what, Func<string, EntryBody> body, string done)
    {
        var (ticket, text) = (Said.Ticket(), Said.Text("TEXT", what));
        return new Command(verb, says) { ticket, text }.Does(call => call.WriteAsync(call.Get(ticket), body(call.Get(text)), done));
    }
}
