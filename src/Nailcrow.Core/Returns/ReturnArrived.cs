using System.Text.Json.Serialization;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns;

/// <summary>How a box came.</summary>
[JsonConverter(typeof(KebabEnum<BoxState>))]
public enum BoxState
{
    Sound,

    /// <summary>It, or what is in it, was knocked about on the way.</summary>
    Damaged,

    /// <summary>There is no drive in it.</summary>
    Empty,
}

/// <summary>A box arrived and was opened; the serial inside is read, not assumed.</summary>
/// <param name="Serial">The drive whose return this box was sent as.</param>
/// <param name="SerialInBox">What is written on the drive in it; empty where there is none.</param>
/// <param name="Shelf">Where it was put, if it went to a depot.</param>
public sealed record ReturnArrived(string Serial, string? SerialInBox = null, BoxState? State = null, string? Shelf = null) : FactBody
{
    public override string Told() =>
        State == BoxState.Empty
            ? $"Box for {Serial} opened: empty"
            : $"Box for {Serial} opened: {SerialInBox}{(State == BoxState.Damaged ? ", damaged" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Stores, Role.Lead];

    public override string? Problem(Ticket ticket) =>
        !ticket.Returns.Exists(r => r.Serial == SerialNumber.Normalise(Serial))
            ? $"No return for {Serial} is open on this ticket; open: {string.Join(", ", ticket.Returns.Select(r => r.Serial).DefaultIfEmpty("none"))}."
        : State != BoxState.Empty && string.IsNullOrWhiteSpace(SerialInBox)
            ? "Read the serial on the drive in the box; where there is none, say that the box is empty."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        if (!ticket.Returns.Exists(r => r.Serial == serial))
            return ticket.Raise(stamp, "return", $"{serial} arrived without a return being open for it.");
        if (State == BoxState.Empty)
            return ticket.Raise(stamp, "return", $"The box for {serial} was empty. Claim it from the carrier, and look for it.");
        // A label's code may have an identifier before the serial.
        var inBox =
            SerialNumber.Meanings(SerialInBox).FirstOrDefault(m => ticket.Returns.Exists(r => r.Serial == m))
            ?? SerialNumber.Normalise(SerialInBox ?? "");
        // Two boxes of one ticket were packed crosswise: what is in this one has arrived, and the other is still waited for.
        var came = inBox == serial || !ticket.Returns.Exists(r => r.Serial == inBox && r.ArrivedAt is null) ? serial : inBox;
        var comparison = SerialComparison.Between(inBox, came);
        return comparison.Outcome == SerialOutcome.Exact
            ? Arrived(ticket, came, stamp)
            : ticket.Raise(stamp, "return", $"The box for {serial} held something else. {comparison.Sentence}");
    }

    private Ticket Arrived(Ticket ticket, string serial, Stamp stamp)
    {
        var open = ticket.Returns.First(r => r.Serial == serial);
        var there = Shelf is null ? open.To : open.To with { Shelf = Shelf };
        var arrived = ticket.HandedTo(serial, there, stamp) with
        {
            Returns = ticket.Returns.Replace(open, open with { ArrivedAt = stamp.At }),
        };
        return State == BoxState.Damaged
            ? arrived.Raise(stamp, "return", $"{serial} arrived damaged. Claim it from the carrier, with a picture.")
            : arrived;
    }
}
