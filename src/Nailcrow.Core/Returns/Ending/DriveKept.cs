using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ending;

/// <summary>The customer keeps a drive with their data on it: it was handed to somebody there, by name.</summary>
public sealed record DriveKept(string Serial, string TakenBy, string? Note = null) : FactBody
{
    public override string Told() => $"{TakenBy} took {Serial}: it stays with the customer{(Note is { } note ? $". {note}" : "")}";

    public override string? Problem(Ticket ticket) =>
        HandedOn.Problem(Serial) ?? (string.IsNullOrWhiteSpace(TakenBy) ? "Write down who at the customer took the drive." : null);

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        HandedOn.To(ticket, Serial, new(HolderKind.Customer, Target.Customer(ticket) ?? TakenBy), stamp, "kept");
}
