using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Owners;

namespace Nailcrow.Core.Appliances;

/// <summary>A storage machine at a site, as the firm knows it.</summary>
/// <param name="Asset">Its asset number with the firm; what tickets name it by.</param>
/// <param name="Serial">Its own serial, on the sticker of the chassis.</param>
/// <param name="Model">The id of its <see cref="ApplianceModel"/>.</param>
/// <param name="Location">Room, rack and unit, as one would say it.</param>
/// <param name="Address">Where its management interface answers, as an absolute http or https URL; null where nobody reaches it.</param>
/// <param name="Arrays">How its arrays were set up: the count of members is held against this.</param>
/// <param name="SendsAs">The host name or IP address it calls itself by in what it sends, such as syslog.</param>
public sealed record Appliance(
    string Asset,
    string Serial,
    string Model,
    string Site,
    string Location,
    string? Address = null,
    IReadOnlyList<ArrayDesign>? Arrays = null,
    IReadOnlyList<Expansion>? Expansions = null,
    string? SendsAs = null
);

/// <summary>A further enclosure of the same appliance; its bays are labelled "E1/7".</summary>
public sealed record Expansion(string Name, string Model, string Serial);

/// <summary>An array as it was set up, so that a count of members can be held against something.</summary>
/// <param name="MemberBytes">Bytes the array uses of each member.</param>
/// <param name="Groups">Mirrors of striped mirrors, or groups of grouped parity.</param>
/// <param name="Parity">The m of k-plus-m.</param>
public sealed record ArrayDesign(
    string Name,
    ArrayLevel Level,
    int Members,
    long? MemberBytes = null,
    int? Groups = null,
    int? Parity = null
)
{
    public DriveArray As(ArrayState state) => new(Name, Level, Members, state, MemberBytes, Groups, Parity);
}
