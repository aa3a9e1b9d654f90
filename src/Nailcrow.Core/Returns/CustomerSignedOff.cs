using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns;

/// <summary>The customer has seen that the data is there, and says so by name.</summary>
public sealed record CustomerSignedOff(string Name, string? Statement = null) : FactBody
{
    public override string Told() => $"Signed off by {Name}{(Statement is { } statement ? $": {statement}" : "")}";

    public override string? Problem(Ticket ticket) => string.IsNullOrWhiteSpace(Name) ? "A sign-off has the name of who signs." : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { SignedOffBy = Name };
}
