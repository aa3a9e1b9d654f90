using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Reports.Papers;

/// <summary>The paper about one drive that did not go back: destroyed, or kept by the customer.</summary>
public static class Handing
{
    /// <summary>Drives that were destroyed by this ticket's record.</summary>
    public static IEnumerable<string> Destroyed(TicketRecord record) =>
        Told<DriveDestroyed>(record, d => d.Serial, HolderKind.Destroyed).Keys;

    /// <summary>Drives that the customer has by this ticket's record.</summary>
    public static IEnumerable<string> Kept(TicketRecord record) => Told<DriveKept>(record, d => d.Serial, HolderKind.Customer).Keys;

    public static Parsed<Form> Destruction(TicketRecord record, string? serial)
    {
        var key = SerialNumber.Normalise(serial ?? "");
        var entry = Told<DriveDestroyed>(record, d => d.Serial, HolderKind.Destroyed).GetValueOrDefault(key);
        return entry?.Body is not DriveDestroyed destroyed
            ? None(record, key, "destroyed", Destroyed(record))
            : new Parsed<Form>.Ok(
                new(
                    record.Ticket.Number,
                    "Certificate of destruction",
                    record.LastRecorded,
                    [
                        .. Whose(record.Ticket),
                        new("Method", destroyed.Method),
                        new("When", "", entry.Happened),
                        new("By", entry.By),
                        new("Witness", destroyed.Witness),
                        .. destroyed.Certificate is { Length: > 0 } number
                            ? [new("Certificate", number, IsCode: true)]
                            : Array.Empty<FormFact>(),
                    ],
                    [new(key, DriveNamed.On(record.Ticket, key), [CameOutOf(record.Ticket, key)])],
                    ["This drive was destroyed as stated, before the eyes of the witness."],
                    [$"Destroyed by ({entry.By})", $"Witness ({destroyed.Witness})"]
                )
            );
    }

    public static Parsed<Form> Retention(TicketRecord record, string? serial)
    {
        var key = SerialNumber.Normalise(serial ?? "");
        var entry = Told<DriveKept>(record, d => d.Serial, HolderKind.Customer).GetValueOrDefault(key);
        return entry?.Body is not DriveKept kept
            ? None(record, key, "kept by the customer", Kept(record))
            : new Parsed<Form>.Ok(
                new(
                    record.Ticket.Number,
                    "A drive that stays with the customer",
                    record.LastRecorded,
                    [
                        .. Whose(record.Ticket),
                        new("Taken by", kept.TakenBy),
                        new("When", "", entry.Happened),
                        new("Handed over by", entry.By),
                        .. kept.Note is { Length: > 0 } note ? [new("Note", note)] : Array.Empty<FormFact>(),
                    ],
                    [new(key, DriveNamed.On(record.Ticket, key), [CameOutOf(record.Ticket, key)])],
                    [
                        "The customer keeps this drive with all that is on it, and answers for it from now on: for what is on it, and for how it is "
                            + "stored and disposed of.",
                        "It is not returned to its maker.",
                    ],
                    [$"For the customer ({kept.TakenBy})", $"Handed over by ({entry.By})"]
                )
            );
    }

    /// <summary>Whose machine it is, where, and which.</summary>
    internal static IEnumerable<FormFact> Whose(Ticket ticket) =>
        ticket.Report is { } report
            ?
            [
                new("Customer", $"{report.Customer}, {report.Site}: {report.Location}"),
                new("Machine", $"{report.Asset}, {report.Model}, chassis {report.ChassisSerial}"),
            ]
            : [];

    private static string CameOutOf(Ticket ticket, string serial) =>
        ticket.Swaps.LastOrDefault(s => s.OutSerial == serial) is { } swap
            ? $"Came out of bay {swap.Bay}."
            : "It did not come out of the machine on this ticket.";

    /// <summary>The last entry of a kind on each drive that is still where it says: one that was taken back later is nobody's to sign for.</summary>
    private static Dictionary<string, Entry> Told<TBody>(TicketRecord record, Func<TBody, string> serial, HolderKind now)
        where TBody : EntryBody =>
        record
            .AsItCounts()
            .Where(e => e.Body is TBody)
            .GroupBy(e => SerialNumber.Normalise(serial((TBody)e.Body)))
            .Where(g => record.Ticket.Custody.HolderOf(g.Key)?.Kind == now)
            .ToDictionary(g => g.Key, g => g.Last());

    private static Parsed<Form> None(TicketRecord record, string serial, string was, IEnumerable<string> those) =>
        new Parsed<Form>.Refused(
            $"By {TicketNumber.Text(record.Ticket.Number)} {(serial.Length > 0 ? serial : "no drive that was named")} was not {was}; "
                + $"{was}: {string.Join(", ", those.DefaultIfEmpty("none"))}."
        );
}
