using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns;

/// <summary>The customer has seen that the data is there, and says so by name.</summary>
public sealed record CustomerSignedOff(string Name, string? Statement = null) : FactBody
{
    public override string Told() => $"Signed off by {Name}{(Statement is { } statement ? $": {statement}" : "")}";

    public override string? Problem(Ticket ticket) => string.IsNullOrWhiteSpace(Name) ? "A sign-off has the name of who signs." : null;

    /// <summary>What was not done yet cannot have been seen: such a sign-off is kept, and does not count.</summary>
    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        !ticket.WorkWasDone
            ? ticket.Raise(
                stamp,
                "sign-off",
                $"{Name} signed off before any work was done; what they saw was not the work. Have them sign again at its end."
            )
            : ticket with
            {
                SignedOffBy = Name,
            };
}
