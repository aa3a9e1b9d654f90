using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Stores;

/// <summary>A part in somebody's hand, and where it is put.</summary>
/// <param name="AsRead">It was read again, and is what was read: what is expected and reads nearly the same is another one.</param>
public sealed record InHand(string Serial, Holder To, string? Model = null, long? Bytes = null, bool AsRead = false);

/// <summary>What a part in hand means to the record.</summary>
public abstract record Received
{
    private Received() { }

    /// <summary>A ticket waits for it: its journal says that it is here, and the ledger hears it from there.</summary>
    public sealed record OnTicket(long Ticket, EntryBody Body, string Says) : Received;

    /// <summary>No ticket has to do with it.</summary>
    public sealed record InLedger(Movement Movement, string Says) : Received;

    /// <summary>It is there already, as far as the record knows.</summary>
    public sealed record There(string Says) : Received;

    /// <summary>Something has to be said first; nothing is recorded yet.</summary>
    public sealed record Ask(string Says) : Received;
}

/// <summary>Boxes and parts that come in: each is matched to what waits for it, by its serial alone.</summary>
public static class Receiving
{
    /// <param name="waiting">The ticket that moved it last; null where none did.</param>
    /// <param name="expected">Serials on their way: one that reads nearly the same is asked about before it is said.</param>
    /// <param name="alike">Parts that are there, whose serials differ in nothing but characters that people misread.</param>
    public static Received Of(
        InHand hand,
        PartLine line,
        Ticket? waiting,
        IEnumerable<string> expected,
        IReadOnlyList<StoredPart> alike,
        Guid id,
        string by,
        DateTimeOffset now
    )
    {
        if (!SerialNumber.Parse(hand.Serial).Is(out var read, out var reason))
            return new Received.Ask(reason);
        var serial = SerialNumber.Normalise(read.Text);
        if (waiting is not null && waiting.Custody.HolderOf(serial) is { } held && (!held.MayKeep || !waiting.IsEnded))
            return ForTicket(hand, serial, line, waiting, held, id, by, now);
        if (line.Holder is not { } was)
            return New(hand, serial, expected, alike, id, by, now);
        if (IsThere(line.Holder, hand.To))
            return new Received.There($"{serial} is {was.Where()} already.");
        var usual = was is { Kind: HolderKind.Depot or HolderKind.Van or HolderKind.Engineer or HolderKind.Carrier };
        return new Received.InLedger(
            new(
                id,
                serial,
                usual ? MovementKind.Went : MovementKind.Counted,
                now,
                by,
                hand.To,
                Note: usual ? null : $"By the record it was {was.Where()}."
            ),
            usual ? $"{serial} went from {was} to {hand.To}." : $"{serial} is {hand.To.Where()} now; by the record it was {was.Where()}."
        );
    }

    private static Received ForTicket(
        InHand hand,
        string serial,
        PartLine line,
        Ticket waiting,
        Holder held,
        Guid id,
        string by,
        DateTimeOffset now
    )
    {
        var name = TicketNumber.Text(waiting.Number);
        if (IsThere(line.Holder, hand.To))
            return new Received.There($"{serial} is {line.Holder?.Where()} already, for {name}.");
        // To another shelf of the same depot nobody has to be told.
        if (held.Kind == HolderKind.Depot && held.Name == hand.To.Name && line.Holder is { Kind: HolderKind.Depot })
            return new Received.InLedger(
                new(id, serial, MovementKind.Went, now, by, hand.To),
                $"{serial} went from {line.Holder} to {hand.To}; it is {name}'s."
            );
        if (
            waiting.Returns.Exists(r => r.Serial == serial && r.ArrivedAt is null && r.To.Kind == hand.To.Kind && r.To.Name == hand.To.Name)
        )
            return new Received.OnTicket(
                waiting.Number,
                new ReturnArrived(serial, serial, Shelf: hand.To.Shelf),
                $"{serial} is the return of {name}; it has arrived."
            );
        if (hand.To.Kind != HolderKind.Depot)
            return new Received.Ask(
                $"{serial} is on {name}, {held.Where()}; on its page it is handed to somebody. In a depot it is booked in here."
            );
        return new Received.OnTicket(
            waiting.Number,
            new PartTakenBack(serial, hand.To.Place(), hand.To.Shelf),
            $"{serial} is taken back from {name}; it was {held.Where()}."
        );
    }

    private static Received New(
        InHand hand,
        string serial,
        IEnumerable<string> expected,
        IReadOnlyList<StoredPart> alike,
        Guid id,
        string by,
        DateTimeOffset now
    )
    {
        if (!hand.AsRead && expected.Where(e => IsNearly(serial, e)).Take(MostNear).ToList() is { Count: > 0 } near)
            return new Received.Ask(
                $"Nothing is known of {serial}; {string.Join(" and ", near)} "
                    + (near.Count == 1 ? "is on its way and reads" : "are on their way and read")
                    + " nearly the same. Read the label again, or say that it is as read."
            );
        if (!hand.AsRead && alike.Count > 0)
            return new Received.Ask($"{Unknown(serial, alike)} Read the label again, or say that it is as read.");
        return hand is { Model: { Length: > 0 } model, Bytes: { } bytes and >= ByteSize.FewestOfADrive }
            ? new Received.InLedger(
                new(id, serial, MovementKind.Came, now, by, hand.To, Part: new(model, ByteSize.Labelled(bytes))),
                $"{serial} is new here: {model}, {ByteSize.Both(bytes)}."
            )
            : new Received.Ask($"Nothing is known of {serial}. Say its model and size as on its label, and it is taken in.{Hint(serial)}");
    }

    // Any of them may be the one in the hand; who named one alone would have it taken for that.
    private const int MostNear = 5;

    /// <summary>That nothing is known of a serial, and of which parts something is that read nearly the same.</summary>
    public static string Unknown(string serial, IReadOnlyList<StoredPart> alike)
    {
        var near = alike.Take(MostNear).Select(p => $"{p.Serial} {p.Holder.Where()}").ToList();
        return near.Count == 0
            ? $"Nothing is known of {serial}."
            : $"Nothing is known of {serial}; {string.Join(" and ", near)} {(near.Count == 1 ? "reads" : "read")} nearly the same.";
    }

    private static string Hint(string serial) =>
        SerialNumber.Meanings(serial).Skip(1).FirstOrDefault() is { } without
            ? $" Where the label prints {without}, scan or type that: the code begins with what many labels put before a serial."
            : "";

    /// <summary>No more is said of where in the depot than is known already.</summary>
    private static bool IsThere(Holder? holder, Holder to) =>
        holder is not null && holder.Kind == to.Kind && holder.Name == to.Name && (to.Shelf is null || to.Shelf == holder.Shelf);

    private static bool IsNearly(string serial, string other) =>
        serial != other
        && (
            SerialComparison.IsOneSlip(serial, other)
            || SerialComparison.Between(serial, other).Outcome is SerialOutcome.LikelyMisreading or SerialOutcome.Fragment
        );
}
