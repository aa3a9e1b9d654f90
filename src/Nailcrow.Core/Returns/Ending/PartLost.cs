using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ending;

/// <summary>A lead writes a drive or part off: lost or stolen, in whose hands, and what was on it.</summary>
/// <param name="OnIt">Whose data is on it, or that there is none: the customer has to be told.</param>
public sealed record PartLost(string Serial, string Because, string OnIt) : DecisionBody
{
    public override string Told() => $"{Serial} is written off as lost: {Because}. On it: {OnIt}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Lead];

    public override string? Problem(Ticket ticket) =>
        HandedOn.Problem(Serial) is { } no ? no
        : string.IsNullOrWhiteSpace(Because) ? "Say how it was lost, and what was done to find it."
        : string.IsNullOrWhiteSpace(OnIt) ? "Say what was on it: whose data, or none."
        : null;

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now)
    {
        var serial = SerialNumber.Normalise(Serial);
        return ticket.Custody.HolderOf(serial) switch
        {
            null => $"{serial} has not moved on this ticket, so it cannot have been lost on it.",
            { MayKeep: true } holder => $"{serial} is with {holder}. What a person or a carrier had on the way is written off.",
            _ => null,
        };
    }

    public override bool MayFollowTheEnd() => true;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        HandedOn.To(ticket, Serial, new(HolderKind.Lost, ticket.Custody.HolderOf(Serial)?.Name ?? stamp.By), stamp, "lost");
}
