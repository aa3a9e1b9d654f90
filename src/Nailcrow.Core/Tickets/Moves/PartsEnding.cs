using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Terms;
using static Nailcrow.Core.Tickets.Moves.Offering;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>How a part's way ends other than in a box that was announced: kept, destroyed, taken back, written off, settled.</summary>
internal static class PartsEnding
{
    public static IEnumerable<OfferedMove> Of(Offering asked)
    {
        var ticket = asked.Ticket;
        foreach (var (serial, holder) in ticket.Custody.Now)
        {
            if (holder.Kind == HolderKind.Engineer && ticket.Swaps.Any(s => s.OutSerial == serial))
                foreach (var move in ThereAndThen(asked, serial))
                    yield return move;
            if (holder.Kind == HolderKind.Depot && ticket.Returns.Exists(r => r.Serial == serial && r.Reason == ToDestroy))
                yield return Destroyed(asked, serial, "It was destroyed");
            if (!holder.MayKeep || holder.Kind == HolderKind.Lost)
                yield return TakenBack(asked, serial);
            if (!holder.MayKeep)
                yield return WrittenOff(asked, serial);
        }
        foreach (var back in ticket.Returns.Where(r => r.WaitsForInspection))
        foreach (var move in LookedAt(asked, back.Serial))
            yield return move;
        foreach (var back in ticket.Returns.Where(r => r is { ArrivedAt: not null, Outcome: null, To.Kind: HolderKind.Maker }))
        foreach (var move in Settled(asked, back.Serial))
            yield return move;
    }

    private static IEnumerable<OfferedMove> ThereAndThen(Offering asked, string serial)
    {
        yield return asked.Entry(
            Move.KeepDrive,
            "The customer keeps it",
            new DriveKept(serial, ""),
            new DriveKept(serial, Some),
            [new("takenBy", "Who there takes it"), Sentence("note", "What was agreed") with { Required = false }],
            serial
        );
        yield return Destroyed(asked, serial, "It was destroyed there");
    }

    private static readonly string ToDestroy = Words.Of(ReturnReason.ToBeDestroyed);

    private static OfferedMove Destroyed(Offering asked, string serial, string say) =>
        asked.Entry(
            Move.DestroyDrive,
            say,
            new DriveDestroyed(serial, "", ""),
            new DriveDestroyed(serial, Some, Some),
            [
                Sentence("method", "How it was destroyed") with
                {
                    Hint = "Shredded, drilled through, crushed. A picture of it is added beside the drive.",
                },
                new("witness", "Who saw it"),
                new("certificate", "Number of the certificate", Required: false),
            ],
            serial
        );

    /// <summary>As it was announced takes one press; whatever else was found takes a sentence.</summary>
    private static IEnumerable<OfferedMove> LookedAt(Offering asked, string serial)
    {
        yield return asked.Entry(
            Move.InspectReturn,
            "It is as announced",
            new ReturnInspected(serial, InspectionFinding.AsAnnounced),
            serial
        );
        yield return asked.Entry(
            Move.InspectReturn,
            "It is not as announced",
            new ReturnInspected(serial, InspectionFinding.NothingWrong),
            new ReturnInspected(serial, InspectionFinding.NothingWrong, Some),
            [
                new(
                    "found",
                    "What you found",
                    FieldKind.Choice,
                    Value: Words.Of(InspectionFinding.NothingWrong),
                    Choices:
                    [
                        new(Words.Of(InspectionFinding.NothingWrong), "nothing is wrong with it"),
                        new(Words.Of(InspectionFinding.Damaged), "it is damaged, or was opened"),
                        new(Words.Of(InspectionFinding.Incomplete), "something of it is missing"),
                    ]
                ),
                Sentence("note", "What you saw") with
                {
                    Hint = "A picture of it is added beside the drive.",
                },
            ],
            serial
        );
    }

    private static OfferedMove TakenBack(Offering asked, string serial) =>
        asked.Entry(
            Move.TakeBackPart,
            "It is back in stores",
            new PartTakenBack(serial, ""),
            new PartTakenBack(serial, Some),
            [new("depot", "Depot"), new("shelf", "Shelf", Required: false)],
            serial
        );

    private static OfferedMove WrittenOff(Offering asked, string serial) =>
        asked.Entry(
            Move.WriteOff,
            "It is lost",
            new PartLost(serial, "", ""),
            new PartLost(serial, Some, Some),
            [Sentence("because", "How it was lost, and what was done to find it"), new("onIt", "What was on it: whose data, or none")],
            serial
        );

    /// <summary>Each outcome asks for what it needs: a charge for its amount, a refusal for its reason.</summary>
    private static IEnumerable<OfferedMove> Settled(Offering asked, string serial)
    {
        var amount = new MoveField("amount", "Amount, with its currency", Hint: "140.00 EUR");
        var note = Sentence("note", "What they say");
        foreach (
            var (outcome, say, fields) in new (Outcome, string, MoveField[])[]
            {
                (Outcome.Exchanged, "It is exchanged", [note with { Required = false }]),
                (Outcome.Credited, "It is credited", [amount with { Required = false }, note with { Required = false }]),
                (Outcome.Charged, "It is charged", [amount, note with { Required = false }]),
                (Outcome.Refused, "The claim is refused", [note]),
            }
        )
            yield return asked.Entry(
                Move.SettleReturn,
                say,
                new ReturnSettled(serial, outcome),
                new ReturnSettled(serial, outcome, Some, Some),
                fields,
                serial
            );
    }
}
