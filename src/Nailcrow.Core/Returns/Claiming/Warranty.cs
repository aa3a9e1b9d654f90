namespace Nailcrow.Core.Returns.Claiming;

/// <summary>From when until when a drive is exchanged or paid for by its maker, and on which terms.</summary>
/// <param name="Until">The last day.</param>
/// <param name="Terms">As the maker words it: "exchange in advance, media may be kept".</param>
public sealed record Warranty(DateOnly Until, DateOnly? From = null, string? Terms = null)
{
    /// <summary>As it goes on after a serial.</summary>
    public string Told(DateOnly today) =>
        (
            today > Until ? $"its warranty ended on {Carrying.Parcel.Day(Until)}"
            : today < From ? $"its warranty begins on {Carrying.Parcel.Day(From.Value)}"
            : $"under warranty until {Carrying.Parcel.Day(Until)}"
        ) + (string.IsNullOrWhiteSpace(Terms) ? "" : $" ({Terms})");
}
