using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns;

/// <summary>A box arrived and was opened; the serial inside is read, not assumed.</summary>
/// <param name="Serial">The drive whose return this box was sent as.</param>
public sealed record ReturnArrived(string Serial, string SerialInBox) : FactBody
{
    public override string Told() => $"Box for {Serial} opened: {SerialInBox}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Stores, Role.Lead];

    public override string? Problem(Ticket ticket) =>
        ticket.Returns.Exists(r => r.Serial == SerialNumber.Normalise(Serial))
            ? null
            : $"No return for {Serial} is open on this ticket; open: {string.Join(", ", ticket.Returns.Select(r => r.Serial).DefaultIfEmpty("none"))}.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        if (ticket.Returns.Find(r => r.Serial == serial) is not { } open)
            return ticket.Raise(stamp, "return", $"{serial} arrived without a return being open for it.");
        var comparison = SerialComparison.Between(SerialInBox, serial);
        return comparison.Outcome == SerialOutcome.Exact
            ? ticket with
            {
                Returns = ticket.Returns.Replace(open, open with { ArrivedAt = stamp.At }),
                Custody = ticket.Custody.Move(serial, open.To, stamp.At, stamp.By),
            }
            : ticket.Raise(stamp, "return", $"The box for {serial} held something else. {comparison.Sentence}");
    }
}
