using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Claiming;

/// <summary>What a maker answered about a drive; kept with the time it was said.</summary>
/// <param name="Asked">The entry they were asked with.</param>
/// <param name="Authorisation">The number to send it back under.</param>
/// <param name="DueBy">By when it has to be there.</param>
/// <param name="LateCost">What they charge when it is late, with its currency.</param>
/// <param name="Refused">Why they do not take it.</param>
public sealed record MakerAnswered(
    Guid Asked,
    string Serial,
    string Maker,
    Warranty? Warranty = null,
    string? Authorisation = null,
    DateOnly? DueBy = null,
    string? Refused = null,
    string? Says = null,
    string? LateCost = null
) : FactBody
{
    public override string Told() =>
        Refused is { } no ? $"{Maker} refuses {Serial}: {no}"
        : Authorisation is { } number
            ? $"{Maker} takes {Serial} back under {number}{(DueBy is { } due ? $", by {Carrying.Parcel.Day(due)}" : "")}"
        : Warranty is { } warranty ? $"{Maker}: {Serial} has warranty until {Carrying.Parcel.Day(warranty.Until)}"
        : $"{Maker} on {Serial}: {Says}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Admin];

    public override string? ByServiceOnly() =>
        "What a maker answers is written by the service that asked; a number they gave you otherwise goes into the return.";

    internal override Guid? Cause() => Asked;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket.Claims.Find(c => c.Asked == Asked) is { } claim
            ? ticket with
            {
                Claims = ticket.Claims.Replace(
                    claim,
                    claim with
                    {
                        AnsweredAt = stamp.At,
                        Warranty = Warranty,
                        Authorisation = Authorisation,
                        DueBy = DueBy,
                        Refused = Refused,
                        Says = Says,
                        LateCost = LateCost,
                    }
                ),
            }
            : ticket;

    /// <summary>The number that this drive's maker gave for it, and that was not refused since.</summary>
    internal static Claim? Standing(Ticket ticket, string serial) =>
        ticket.Claims.LastOrDefault(c => c.Serial == SerialNumber.Normalise(serial) && (c.Authorisation ?? c.Refused) is not null)
            is { Authorisation: not null } given
            ? given
            : null;
}
