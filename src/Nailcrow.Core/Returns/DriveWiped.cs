using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns;

/// <summary>A drive's old data is gone, and how. Recorded against its serial, so that a used drive may go into another machine.</summary>
public sealed record DriveWiped(string Serial, string Method) : FactBody
{
    public override string Told() => $"Wiped {Serial}: {Method}";

    public override string? Problem(Ticket ticket) =>
        SerialNumber.Parse(Serial) is Parsed<SerialNumber>.Refused no ? no.Reason
        : string.IsNullOrWhiteSpace(Method) ? "Say how it was wiped: overwritten once, sanitize command, degaussed."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => Fold(ticket, Serial, stamp);

    internal static Ticket Fold(Ticket ticket, string serial, Stamp stamp) =>
        ticket with
        {
            Wiped = ticket.Wiped.Add(new(SerialNumber.Normalise(serial), stamp.At, stamp.By, stamp.Entry, stamp.Seq)),
        };
}
