using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ending;

/// <summary>A drive was destroyed: how, before whose eyes, under which certificate.</summary>
public sealed record DriveDestroyed(string Serial, string Method, string Witness, string? Certificate = null) : FactBody
{
    public override string Told() =>
        $"Destroyed {Serial}: {Method}. Seen by {Witness}{(Certificate is { } number ? $", certificate {number}" : "")}";

    public override string? Problem(Ticket ticket) =>
        HandedOn.Problem(Serial) is { } no ? no
        : string.IsNullOrWhiteSpace(Method) ? "Say how it was destroyed: shredded, drilled through, crushed, degaussed and bent."
        : string.IsNullOrWhiteSpace(Witness) ? "Write down who saw it destroyed."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        HandedOn.To(ticket, Serial, new(HolderKind.Destroyed, Target.Site(ticket) ?? stamp.By), stamp, "destroyed");
}
