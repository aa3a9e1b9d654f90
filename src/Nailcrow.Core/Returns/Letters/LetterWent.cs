using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Letters;

/// <summary>What became of something that was to go out by mail: the mail server took it, or it does not go and why.</summary>
/// <param name="Asked">The entry that wanted it sent.</param>
/// <param name="Sha256">Of the paper as it was sent: whoever has it can tell whether it is that one.</param>
public sealed record LetterWent(Guid Asked, string To, string? Refused = null, string? Sha256 = null) : FactBody
{
    public override string Told() =>
        Refused is { } why
            ? $"The mail to {To} does not go: {why}"
            : $"The mail to {To} went out{(Sha256 is { } hash ? $"; the paper in it has the SHA-256 {hash}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() =>
        "Whether a mail went out is written by the service that sent it; what was sent in another way is written as a note.";

    internal override Guid? Cause() => Asked;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket.Letters.Find(l => l.Asked == Asked) is { } letter
            ? ticket with
            {
                Letters = ticket.Letters.Replace(
                    letter,
                    letter with
                    {
                        WentAt = Refused is null ? stamp.At : null,
                        Refused = Refused,
                        Sha256 = Sha256,
                    }
                ),
            }
            : ticket;
}
