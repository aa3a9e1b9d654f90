using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;

namespace Nailcrow.Core.Tickets.Telling;

/// <summary>What is known around a ticket and stands in no entry of it: its machine, its site, its procedure's fate.</summary>
/// <param name="Model">Null where the appliance's model is not known any more.</param>
/// <param name="Zone">The site's IANA time zone.</param>
/// <param name="Reachable">Whether the service can ask the machine itself.</param>
/// <param name="Withdrawn">Why the sheet's procedure was withdrawn; null where it stands.</param>
/// <param name="Sightings">What visits learnt of the machine's bays; null where nobody looks for a bay.</param>
/// <param name="Outdated">Why the sheet is for what is no longer so, and which one is for what is; null where it fits.</param>
/// <param name="WhyNoSheet">Why no sheet can be made of this ticket yet; null where one can, or where nobody asks for one.</param>
/// <param name="Location">Where the machine stands now; null where it is not known any more.</param>
/// <param name="Customer">Whose machine it is, with whom to ask there; null where that is not known any more.</param>
/// <param name="Partners">Carriers and makers whom the service can ask.</param>
/// <param name="Warranties">What is known of the warranties of its drives, and of models.</param>
/// <param name="Beside">The other open tickets of its machine.</param>
public sealed record Surroundings(
    ApplianceModel? Model = null,
    IReadOnlyList<ChassisDrawing>? Drawing = null,
    string? Zone = null,
    string? Access = null,
    bool Reachable = false,
    string? Withdrawn = null,
    IReadOnlyList<BaySighting>? Sightings = null,
    string? WhyNoSheet = null,
    string? Outdated = null,
    IReadOnlyList<TicketLine>? Beside = null,
    string? Location = null,
    Customer? Customer = null,
    IReadOnlyList<Partner>? Partners = null,
    IReadOnlyList<KnownWarranty>? Warranties = null
)
{
    /// <summary>What is known of a drive's warranty, as a sentence; null where nothing is.</summary>
    public string? WarrantyTold(Ticket ticket, string serial, DateTimeOffset now) =>
        KnownWarranty.Of(Warranties ?? [], serial, Target.SeenAs(ticket, serial)?.Model) is { } known
            ? $"{serial}: {known.Told(DateOnly.FromDateTime(now.UtcDateTime))}."
            : null;
}
