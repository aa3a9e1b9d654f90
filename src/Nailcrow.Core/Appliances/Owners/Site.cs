namespace Nailcrow.Core.Appliances.Owners;

/// <summary>Where appliances stand, what one has to know to get in, and what was promised there.</summary>
/// <param name="Zone">IANA time zone, such as "Europe/Oslo": people read times there beside UTC.</param>
/// <param name="Hours">When one is let in, in the opening_hours form of open maps: "Mo-Fr 08:00-17:00; Sa 09:00-12:00" or "24/7".</param>
/// <param name="RespondHours">Promised: an engineer on site within so many of those hours.</param>
/// <param name="RestoreHours">Promised: redundancy back within so many of those hours.</param>
/// <param name="Latitude">Degrees north; with the longitude it orders a day's visits.</param>
public sealed record Site(
    string Name,
    string Customer,
    string Address,
    string Zone,
    string? Access = null,
    string? Hours = null,
    IReadOnlyList<DateOnly>? Holidays = null,
    int? RespondHours = null,
    int? RestoreHours = null,
    double? Latitude = null,
    double? Longitude = null
);
