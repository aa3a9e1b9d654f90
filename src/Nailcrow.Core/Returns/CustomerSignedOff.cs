using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns;

/// <summary>The customer has seen that the data is there, and says so by name.</summary>
/// <param name="Signature">Their own hand, where they signed on a screen; null where only the name was written down.</param>
public sealed record CustomerSignedOff(string Name, string? Statement = null, Signature? Signature = null) : FactBody
{
    public override string Told() =>
        $"{(Signature is null ? "Signed off" : "Signed on the screen")} by {Name}{(Statement is { } statement ? $": {statement}" : "")}";

    public override string? ByServiceOnly() =>
        Signature is null
            ? null
            : "A signature is sent as its picture, and the service writes its entry: PUT /api/tickets/{number}/signatures/{id}, or "
                + "'nailcrow ticket sign-off --signature FILE'.";

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
                Signed = Signature is { } signature ? new(signature.Photo, Name, stamp.At, signature.SignedSha256) : null,
            };
}

/// <summary>That a ticket was signed on a screen.</summary>
/// <param name="Photo">The picture of the signature.</param>
/// <param name="Sha256">Of what was signed.</param>
/// <param name="Removed">That the picture is kept no more; null while it is. It was signed all the same.</param>
public sealed record SignedOnScreen(Guid Photo, string Name, DateTimeOffset At, string Sha256, Removal? Removed = null);
