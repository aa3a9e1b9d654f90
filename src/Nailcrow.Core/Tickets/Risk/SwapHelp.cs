using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Risk;

/// <summary>Whether swapping a drive brings redundancy back at all: said before anybody travels.</summary>
[JsonConverter(typeof(KebabEnum<SwapHelp>))]
public enum SwapHelp
{
    NotKnown,
    Helps,
    NoRedundancy,
    TooManyLost,
}

/// <summary>Why a swap helps or does not, from what is known of the array.</summary>
public static class SwapHelping
{
    public static SwapHelp Of(DriveArray array, int margin) =>
        Redundancy.Of(array).Bears == 0 ? SwapHelp.NoRedundancy
        : margin < 0 ? SwapHelp.TooManyLost
        : SwapHelp.Helps;

    /// <summary>Before any snapshot, an appliance whose arrays all have no redundancy can only be rebuilt from nothing.</summary>
    public static SwapHelp Of(IReadOnlyList<ArrayDesign>? designs) =>
        designs is [_, ..] && designs.All(d => Redundancy.Of(d).Bears == 0) ? SwapHelp.NoRedundancy : SwapHelp.NotKnown;
}
