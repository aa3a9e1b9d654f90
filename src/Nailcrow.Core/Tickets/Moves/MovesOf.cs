using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Linking;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Core.Tickets.Waiting;
using static Nailcrow.Core.Tickets.Moves.Offering;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>Every move there is on a ticket, each with whether this person may make it now, and if not, why.</summary>
public static class MovesOf
{
    public static IReadOnlyList<OfferedMove> Ticket(Ticket ticket, Actor actor, DateTimeOffset now, Surroundings known)
    {
        var asked = new Offering(ticket, actor, now, known);
        return
        [
            .. Planning(asked),
            .. RunMoves.Of(asked),
            .. PartMoves.Of(asked),
            .. Waiting(asked),
            .. Writing(asked),
            .. Helping(asked),
            .. Beside(asked),
            .. Settling(asked),
            .. Ending(asked),
        ];
    }

    private static IEnumerable<OfferedMove> Planning(Offering asked)
    {
        var (ticket, me) = (asked.Ticket, asked.Actor.Name);
        yield return asked.Entry(
            Move.Take,
            "Take it",
            new EngineerAssigned(me),
            notNow: ticket.Engineer == me ? "It is yours already." : null
        );
        yield return asked.Entry(
            Move.Assign,
            "Assign",
            new EngineerAssigned(ticket.Engineer ?? ""),
            new EngineerAssigned(Some),
            [new("engineer", "Engineer", FieldKind.Person, Value: ticket.Engineer)]
        );
        yield return asked.Entry(
            Move.HandOver,
            "Hand over",
            new HandedOver(ticket.Engineer ?? "", ""),
            new HandedOver(ticket.Engineer ?? "", Some),
            [
                new("to", "To whom", FieldKind.Person, Except: ticket.Engineer),
                new("note", "What they have to know", FieldKind.Lines, Required: false, Most: 4_000),
            ]
        );
        yield return asked.Entry(
            Move.PlanVisit,
            "Plan the visit",
            new VisitPlanned(default, default),
            new VisitPlanned(asked.Now, asked.Now.AddHours(1)),
            [new("from", "Visit begins", FieldKind.Time), new("to", "And ends", FieldKind.Time)]
        );
    }

    private static IEnumerable<OfferedMove> Waiting(Offering asked)
    {
        yield return asked.Entry(Move.LiftHold, "Lift the hold", new HoldLifted());
        yield return asked.Entry(
            Move.PutOnHold,
            "Put on hold",
            new PutOnHold(""),
            new PutOnHold(Some),
            [
                Sentence("reason", "Why"),
                new(
                    "waitsFor",
                    "Waits for",
                    FieldKind.Choice,
                    Value: Words.Of(WaitsFor.Other),
                    Choices:
                    [
                        new(Words.Of(WaitsFor.Other), "something else (clocks run)"),
                        new(Words.Of(WaitsFor.Customer), "the customer (clocks stop)"),
                        new(Words.Of(WaitsFor.Access), "access (clocks stop)"),
                        new(Words.Of(WaitsFor.Part), "a part (clocks run)"),
                    ]
                ),
                new("until", "Until, if that is agreed", FieldKind.Time, Required: false),
            ]
        );
    }

    private static IEnumerable<OfferedMove> Writing(Offering asked)
    {
        yield return asked.Entry(
            Move.WriteNote,
            "Note",
            new NoteWritten(""),
            new NoteWritten(Some),
            [Sentence("text", "What to remember")]
        );
        yield return asked.Entry(
            Move.Advise,
            "Advise the customer",
            new AdviceGiven(""),
            new AdviceGiven(Some),
            [
                Sentence("text", "What they should do: a spare, a backup, another drive"),
                new("decision", "What they decided, and who", FieldKind.Lines, Required: false, Most: 4_000),
            ]
        );
        foreach (var open in asked.Ticket.Advice.Where(a => a.Decision is null))
            yield return asked.Entry(
                Move.Advise,
                $"They decided: {open.Text}",
                open,
                open with
                {
                    Decision = Some,
                },
                [new("decision", "What they decided, and who", FieldKind.Lines, Most: 4_000)],
                open.Text
            );
        yield return asked.Entry(
            Move.AddEvidence,
            "Add evidence",
            new EvidenceSeen(EvidenceKind.Symptom, asked.Actor.Name, ""),
            new EvidenceSeen(EvidenceKind.Symptom, asked.Actor.Name, Some),
            [
                new(
                    "evidence",
                    "Kind",
                    FieldKind.Choice,
                    Value: Words.Of(EvidenceKind.Symptom),
                    Choices: [.. Enum.GetValues<EvidenceKind>().Select(k => new FieldChoice(Words.Of(k), Words.Of(k).Replace('-', ' ')))]
                ),
                Sentence("text", "What was seen"),
                new("bay", "Bay", Required: false, Most: 40),
                new("serial", "Serial", FieldKind.Serial, Required: false),
                new("count", "How often", FieldKind.Number, Required: false),
            ]
        );
    }

    private static IEnumerable<OfferedMove> Helping(Offering asked)
    {
        var ticket = asked.Ticket;
        yield return asked.Entry(
            Move.CallHelp,
            "Call a lead",
            new HelpCalled(""),
            new HelpCalled(Some),
            [Sentence("reason", "What do you see?")],
            notNow: ticket.IsEnded ? $"{TicketNumber.Text(ticket.Number)} is {Words.Of(ticket.Stage)}; a note says what came up." : null
        );
        foreach (var goAhead in new[] { true, false })
            yield return asked.Entry(
                Move.AnswerHelp,
                goAhead ? "They may go on" : "They may not",
                new HelpAnswered(goAhead, ""),
                new HelpAnswered(goAhead, Some),
                [Sentence("reason", "Your answer; the engineer goes by it")],
                goAhead ? "go-ahead" : "refuse"
            );
    }

    /// <summary>Several tickets of one machine, or of one fault: joined or linked, never worked on twice.</summary>
    private static IEnumerable<OfferedMove> Beside(Offering asked)
    {
        var others = (asked.Known.Beside ?? [])
            .Select(l => new FieldChoice(
                $"{l.Number}",
                $"{TicketNumber.Text(l.Number)} {l.Symptom}{(l.Bay is { } bay ? $", bay {bay}" : "")}"
            ))
            .ToList();
        yield return asked.Entry(
            Move.JoinTicket,
            "It is the same fault as another",
            new TicketJoined(0),
            new TicketJoined(1),
            [new("into", "As which", FieldKind.Ticket, Value: others.Count > 0 ? others[0].Value : null, Choices: others)],
            notNow: others.Count == 0 ? "No other ticket of this machine is open." : null
        );
        yield return asked.Entry(
            Move.LinkTicket,
            "It has to do with another",
            new TicketLinked(0, LinkKind.SameVisit),
            new TicketLinked(1, LinkKind.SameVisit),
            [
                new("to", "With which", FieldKind.Ticket, Hint: "Its number, such as T-1042."),
                new(
                    "how",
                    "How",
                    FieldKind.Choice,
                    Value: Words.Of(LinkKind.SameVisit),
                    Choices:
                    [
                        new(Words.Of(LinkKind.SameVisit), "both in one visit"),
                        new(Words.Of(LinkKind.RepeatOf), "it is a repeat of that one"),
                        new(Words.Of(LinkKind.After), "it waits for that one"),
                    ]
                ),
            ]
        );
    }

    private static IEnumerable<OfferedMove> Settling(Offering asked)
    {
        var ticket = asked.Ticket;
        foreach (var open in ticket.Discrepancies.Where(d => d.IsOpen))
            yield return asked.Entry(
                Move.Settle,
                "Settle it",
                new DiscrepancySettled(open.Id, ""),
                new DiscrepancySettled(open.Id, Some),
                [Sentence("how", "How it is to be read")],
                open.Id
            );
        yield return asked.Entry(
            Move.SignOff,
            "Signed off",
            new Returns.CustomerSignedOff(""),
            new Returns.CustomerSignedOff(Some),
            [new("name", "Who signs for the customer"), new("statement", "In their words", FieldKind.Lines, Required: false, Most: 4_000)],
            notNow: ticket.SignedOffBy is { } signed ? $"{signed} has signed off."
                : ticket.Swap.InSerial is null ? "There is nothing to sign off before a new drive is in."
                : null
        );
    }

    private static IEnumerable<OfferedMove> Ending(Offering asked)
    {
        yield return asked.Entry(Move.Close, "Close the ticket", new TicketClosed());
        yield return asked.Entry(
            Move.NothingToSwap,
            "There is nothing to swap",
            new TicketClosed(ClosedOtherwise.NothingToSwap),
            new TicketClosed(ClosedOtherwise.NothingToSwap, Some),
            [Sentence("reason", "What was found: a cable, a lamp, a false alarm")],
            notNow: asked.Ticket.HasMoved ? "A drive was moved; the ticket ends as any." : null
        );
        yield return asked.Entry(
            Move.CloseOtherwise,
            "Close it otherwise",
            new TicketClosed(ClosedOtherwise.HandedOver),
            new TicketClosed(ClosedOtherwise.HandedOver, Some),
            [
                new(
                    "otherwise",
                    "How it ended",
                    FieldKind.Choice,
                    Value: Words.Of(ClosedOtherwise.HandedOver),
                    Choices:
                    [
                        .. Enum.GetValues<ClosedOtherwise>()
                            .Where(w => w != ClosedOtherwise.NothingToSwap)
                            .Select(w => new FieldChoice(Words.Of(w), Words.Of(w).Replace('-', ' '))),
                    ]
                ),
                Sentence("reason", "Why, in writing"),
            ]
        );
        yield return asked.Entry(
            Move.Cancel,
            "Cancel the ticket",
            new TicketCancelled(""),
            new TicketCancelled(Some),
            [Sentence("reason", "Why")]
        );
        yield return asked.Entry(
            Move.Reopen,
            "Reopen",
            new TicketReopened(""),
            new TicketReopened(Some),
            [Sentence("reason", "Why it is not over")]
        );
    }
}
