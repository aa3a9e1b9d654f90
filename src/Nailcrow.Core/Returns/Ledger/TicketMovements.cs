using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ledger;

/// <summary>What an entry of a ticket means to the ledger: whatever became different of who holds what, is set aside or wiped.</summary>
public static class TicketMovements
{
    /// <param name="cause">The entry between the two; one that puts another right changes what earlier ones said.</param>
    public static IReadOnlyList<Movement> Between(Ticket before, Ticket after, Entry cause)
    {
        if (
            ReferenceEquals(before.Custody, after.Custody)
            && ReferenceEquals(before.Parts, after.Parts)
            && ReferenceEquals(before.Wiped, after.Wiped)
            && ReferenceEquals(before.Returns, after.Returns)
            && ReferenceEquals(before.GivenUp, after.GivenUp)
            && before.IsEnded == after.IsEnded
        )
            return []; // of a hundred entries hardly one moves a part
        var reserved = SetAside(after).Except(SetAside(before)).ToHashSet();
        var moved = after.Custody.Own.Except(before.Custody.Own).Select(m => Moved(after, m, reserved)).ToList();
        return
        [
            .. before.Custody.Own.Except(after.Custody.Own).Select(m => Undone(after, m.Serial, IdOf(after.Number, m), cause)),
            .. moved,
            .. reserved
                .Except(moved.Where(m => m.Kind == MovementKind.Reserved).Select(m => m.Serial))
                .Select(serial => Decided(after, serial, MovementKind.Reserved, cause)),
            // That it went in says by itself that it waits no more.
            .. SetAside(before)
                .Except(SetAside(after))
                .Where(serial => !Target.WentIn(after, serial))
                .Select(serial => Decided(after, serial, MovementKind.Released, cause)),
            .. GivenUp(after).Except(GivenUp(before)).Select(p => NoReplacement(after, p, cause)),
            .. GivenUp(before).Except(GivenUp(after)).Select(p => Undone(after, p.Serial, IdOf(after, p), cause)),
            .. Said(after).ExceptBy(Said(before).Select(m => m.Id), m => m.Id),
            .. Said(before).ExceptBy(Said(after).Select(m => m.Id), m => m.Id).Select(m => Undone(after, m.Serial, m.Id, cause)),
        ];
    }

    /// <summary>The id under which the ledger has a hand-over.</summary>
    public static Guid IdOf(long ticket, CustodyMove move) =>
        Named(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{ticket}/{move.Entry}/{move.Serial}/{move.To.Kind}/{move.To.Name}/{move.To.Shelf}/{move.At.UtcTicks}"
            )
        );

    /// <summary>The same line is taken as so again.</summary>
    public static Movement Redone(Movement again, Entry cause) =>
        new(
            Named($"{cause.Id}/redone/{again.Id}"),
            again.Serial,
            MovementKind.Redone,
            cause.RecordedAt,
            cause.By,
            Ticket: cause.Ticket,
            Entry: cause.Id,
            Of: again.Id
        );

    /// <summary>Parts that nobody else may have: they wait for this ticket, or are with its engineer to be fitted.</summary>
    public static IEnumerable<string> SetAside(Ticket ticket) =>
        ticket.IsEnded ? [] : ticket.Parts.Where(p => p.GivenUp is null && !Target.WentIn(ticket, p.Serial)).Select(p => p.Serial);

    private static Movement Moved(Ticket ticket, CustodyMove move, HashSet<string> reserved)
    {
        var aside = move.To.Kind is HolderKind.Depot or HolderKind.Van && reserved.Contains(move.Serial);
        var cameOut = Target.CameOut(ticket, move.Serial, move.At);
        return new(
            IdOf(ticket.Number, move),
            move.Serial,
            aside ? MovementKind.Reserved : MovementKind.Went,
            move.At,
            move.By,
            move.To,
            ticket.Number,
            move.To.Kind == HolderKind.Bay || cameOut ? Target.Asset(ticket) : null,
            move.Entry,
            Part: Known(ticket, move.Serial),
            Failed: cameOut && Target.SeenBad(ticket, move.Serial) ? true : null
        );
    }

    /// <summary>What the ticket knows of a part: from its reservation, or as a look showed it in its bay.</summary>
    private static PartData? Known(Ticket ticket, string serial) =>
        ticket.Parts.Find(p => p.Serial == serial) is { } part ? new(part.Model, part.Bytes)
        : Target.SeenAs(ticket, serial) is var (model, bytes) ? new(model, bytes)
        : null;

    /// <summary>What the ticket has announced; one that is off again, since the part went another way, is no part of it.</summary>
    private static IEnumerable<Movement> Announced(Ticket ticket) =>
        ticket.Returns.Select(r => new Movement(
            Named(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{ticket.Number}/announced/{r.Serial}/{r.OpenedAt.UtcTicks}/{r.To}/{r.DueBy:O}"
                )
            ),
            r.Serial,
            MovementKind.Announced,
            r.OpenedAt,
            r.OpenedBy,
            Ticket: ticket.Number,
            Going: new(r.To, r.DueBy, r.Authorisation, r.Reason)
        ));

    /// <summary>
    /// The first wipe of a drive that was recorded has its name from ticket and drive alone; one that was in the machine again is wiped
    /// again. By when they were recorded, and not when they happened: a line in the ledger keeps its name when an earlier one comes late.
    /// </summary>
    private static IEnumerable<Movement> Wiped(Ticket ticket) =>
        ticket
            .Wiped.GroupBy(w => w.Serial)
            .SelectMany(g =>
                g.OrderBy(w => w.Seq)
                    .Select(
                        (wipe, nth) =>
                            new Movement(
                                Named(
                                    nth == 0 ? $"{ticket.Number}/wiped/{wipe.Serial}" : $"{ticket.Number}/wiped/{wipe.Serial}/{wipe.Entry}"
                                ),
                                wipe.Serial,
                                MovementKind.Wiped,
                                wipe.At,
                                wipe.By,
                                Ticket: ticket.Number,
                                Entry: wipe.Entry
                            )
                    )
            );

    private static IEnumerable<Movement> Settled(Ticket ticket) =>
        ticket
            .Returns.Where(r => r.SettledAt is not null)
            .Select(r => new Movement(
                Named(
                    string.Create(CultureInfo.InvariantCulture, $"{ticket.Number}/settled/{r.Serial}/{r.SettledAt?.UtcTicks}/{r.Outcome}")
                ),
                r.Serial,
                MovementKind.Settled,
                r.SettledAt ?? r.OpenedAt,
                r.SettledBy ?? r.OpenedBy,
                Ticket: ticket.Number,
                Note: $"{Words.Of(r.Outcome ?? default)}{(r.OutcomeSays is { } says ? $": {says}" : "")}"
            ));

    /// <summary>What went another way says nothing of the part itself.</summary>
    private static IEnumerable<(string Serial, NoReplacement Reason)> GivenUp(Ticket ticket) =>
        ticket
            .GivenUp.Where(p => p.GivenUp is not (null or Issuing.NoReplacement.NotHere))
            .Select(p => (p.Serial, p.GivenUp ?? Issuing.NoReplacement.NotNeeded));

    private static Guid IdOf(Ticket ticket, (string Serial, NoReplacement Reason) part) =>
        Named(string.Create(CultureInfo.InvariantCulture, $"{ticket.Number}/given-up/{part.Serial}/{part.Reason}"));

    private static Movement NoReplacement(Ticket ticket, (string Serial, NoReplacement Reason) part, Entry cause) =>
        new(
            IdOf(ticket, part),
            part.Serial,
            MovementKind.GivenUp,
            cause.Happened,
            cause.By,
            Ticket: ticket.Number,
            Entry: cause.Id,
            GivenUpAs: part.Reason
        );

    /// <summary>What is on record of drives besides who holds them.</summary>
    private static IEnumerable<Movement> Said(Ticket ticket) =>
        [.. Wiped(ticket), .. Announced(ticket), .. Inspected(ticket), .. Settled(ticket)];

    private static IEnumerable<Movement> Inspected(Ticket ticket) =>
        ticket
            .Returns.Where(r => r.InspectedAt is not null)
            .Select(r => new Movement(
                Named(
                    string.Create(CultureInfo.InvariantCulture, $"{ticket.Number}/inspected/{r.Serial}/{r.InspectedAt?.UtcTicks}/{r.Found}")
                ),
                r.Serial,
                MovementKind.Inspected,
                r.InspectedAt ?? r.OpenedAt,
                r.InspectedBy ?? r.OpenedBy,
                Ticket: ticket.Number,
                Note: r.Found is { } found ? $"{Words.Capital(found)}." : null,
                Found: r.FoundAs
            ));

    private static Movement Decided(Ticket ticket, string serial, MovementKind kind, Entry cause) =>
        new(
            Named($"{cause.Id}/{kind}/{serial}"),
            serial,
            kind,
            cause.RecordedAt,
            cause.By,
            Ticket: ticket.Number,
            Entry: cause.Id,
            Part: kind == MovementKind.Reserved ? Known(ticket, serial) : null
        );

    private static Movement Undone(Ticket ticket, string serial, Guid of, Entry cause) =>
        new(
            Named($"{cause.Id}/undone/{of}"),
            SerialNumber.Normalise(serial),
            MovementKind.Undone,
            cause.RecordedAt,
            cause.By,
            Ticket: ticket.Number,
            Entry: cause.Id,
            Of: of
        );

    /// <summary>The id of what one request says of one of its parts.</summary>
    public static Guid IdOf(Guid request, string serial) => Named($"{request}/{SerialNumber.Normalise(serial)}");

    /// <summary>A UUID, version 8 of RFC 9562: from SHA-256 over what it names, so that the same is named the same.</summary>
    internal static Guid Named(string what)
    {
        var bytes = SHA256.HashData(Encoding.UTF8.GetBytes(what)).AsSpan(0, 16);
        bytes[6] = (byte)(0x80 | (bytes[6] & 0x0F));
        bytes[8] = (byte)(0x80 | (bytes[8] & 0x3F));
        return new(bytes, bigEndian: true);
    }
}
