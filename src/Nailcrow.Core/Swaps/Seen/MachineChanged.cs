using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Seen;

/// <summary>The machine was not as its last ticket left it, and no ticket moved those drives; the service notes it at the first look.</summary>
/// <param name="Ticket">The ticket that looked last.</param>
/// <param name="By">Who looked then.</param>
/// <param name="Changes">A sentence a bay.</param>
/// <param name="NotedAt">The look that showed it; if that one is put right, there was nothing to note.</param>
public sealed record MachineChanged(long Ticket, DateTimeOffset LastSeen, string By, IReadOnlyList<string> Changes, Guid NotedAt) : FactBody
{
    public const string About = "machine";

    internal override Guid? Cause() => NotedAt;

    public override string Told() => $"Not as {TicketNumber.Text(Ticket)} left it: {string.Join(" ", Changes)}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() =>
        "What differs since the last ticket is noted by the service itself; write what you know of it as a note.";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket.Raise(
            stamp,
            About,
            $"Since {By} looked on {TicketNumber.Text(Ticket)} ({LastSeen.UtcDateTime:yyyy-MM-dd HH:mm} UTC) somebody has been at the machine: "
                + $"{string.Join(" ", Changes)} Before anything is pulled, ask the customer, or {By}, who it was and why."
        );
}
