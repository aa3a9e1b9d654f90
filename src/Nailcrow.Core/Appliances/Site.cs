namespace Nailcrow.Core.Appliances;

/// <summary>Where appliances stand, and what one has to know to get in.</summary>
/// <param name="Zone">IANA time zone, such as "Europe/Oslo": people read times there beside UTC.</param>
public sealed record Site(string Name, string Customer, string Address, string Zone, string? Access = null);
