using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Drives;

/// <summary>A serial recorded here is recorded somewhere else as well; the service notes it, since one drive is in one place.</summary>
/// <param name="NotedAt">The entry that it was noted at; if that one is put right, there was nothing to note.</param>
public sealed record SerialKnownElsewhere(string Serial, string Where, Guid? NotedAt = null) : FactBody
{
    internal override Guid? Cause() => NotedAt;

    public override string Told() => $"{Serial} was already known {Where}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() =>
        "That a serial is known elsewhere is noted by the service itself; write what you know of it as a note.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket.Raise(stamp, "serial", $"{Serial} is also recorded {Where}. One drive is in one place: find out which record is wrong.");
}
