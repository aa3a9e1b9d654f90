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
            if (!holder.MayKeep || holder.Kind == HolderKind.Lost)
                yield return TakenBack(asked, serial);
            if (!holder.MayKeep)
                yield return WrittenOff(asked, serial);
        }
        foreach (var back in ticket.Returns.Where(r => r is { ArrivedAt: not null, Outcome: null, To.Kind: HolderKind.Maker }))
            yield return Settled(asked, back.Serial);
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
        yield return asked.Entry(
            Move.DestroyDrive,
            "It was destroyed there",
            new DriveDestroyed(serial, "", ""),
            new DriveDestroyed(serial, Some, Some),
            [
                Sentence("method", "How it was destroyed") with
                {
                    Hint = "Shredded, drilled through, crushed. A picture of it is added under the ticket's pictures.",
                },
                new("witness", "Who saw it"),
                new("certificate", "Number of the certificate", Required: false),
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

    private static OfferedMove Settled(Offering asked, string serial) =>
        asked.Entry(
            Move.SettleReturn,
            "What came of it",
            new ReturnSettled(serial, Outcome.Exchanged),
            new ReturnSettled(serial, Outcome.Exchanged, Some, Some),
            [
                new(
                    "outcome",
                    "The maker has",
                    FieldKind.Choice,
                    Value: Words.Of(Outcome.Exchanged),
                    Choices: [.. Enum.GetValues<Outcome>().Select(o => new FieldChoice(Words.Of(o), Words.Of(o)))]
                ),
                new("amount", "Amount, with its currency", Required: false, Hint: "140.00 EUR"),
                Sentence("note", "What they say") with
                {
                    Required = false,
                },
            ],
            serial
        );
}
