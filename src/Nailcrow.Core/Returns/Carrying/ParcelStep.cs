using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Carrying;

/// <summary>How far a parcel is, as its carrier says.</summary>
[JsonConverter(typeof(KebabEnum<ParcelStep>))]
public enum ParcelStep
{
    Collected,
    OnTheWay,

    /// <summary>It waits somewhere, and they say for what.</summary>
    Held,
    Delivered,

    /// <summary>It, or what is in it, was knocked about; it goes on.</summary>
    Damaged,
    Lost,

    /// <summary>It comes back to whoever sent it.</summary>
    ComesBack,
}

/// <summary>One thing that a carrier said of a parcel.</summary>
/// <param name="At">When it was so; never later than it was told.</param>
public sealed record Tracked(ParcelStep Step, DateTimeOffset At, string? Place, string? Says);
