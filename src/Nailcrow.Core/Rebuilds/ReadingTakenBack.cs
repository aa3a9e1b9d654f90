using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Rebuilds;

/// <summary>A reading that a person typed was a slip. It stays in the journal, and counts no more.</summary>
/// <param name="At">When the reading was taken; of one moment all that were typed are meant.</param>
public sealed record ReadingTakenBack(DateTimeOffset At) : FactBody
{
    public override string Told() => $"The reading of {At.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC was a slip and counts no more";

    public override string? Problem(Ticket ticket) =>
        ticket.Readings.Exists(IsMeant) ? null
        : TypedIn(ticket) is { } last
            ? $"Nobody typed a reading at {At.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC; the last one typed is of {last.At.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC."
        : "Nobody typed a reading on this ticket; what a machine said is not taken back.";

    /// <summary>The last reading that a person typed, of the rebuild that is followed now; null where there is none.</summary>
    public static Reading? TypedIn(Ticket ticket) => ticket.Readings.FindLast(r => r.Source == Reading.Person);

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { Readings = ticket.Readings.RemoveAll(r => IsMeant(r)) };

    private bool IsMeant(Reading reading) => reading.Source == Reading.Person && reading.At == At;
}
