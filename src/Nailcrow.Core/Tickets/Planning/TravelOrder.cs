using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;

namespace Nailcrow.Core.Tickets.Planning;

/// <summary>In which order a day's sites are best visited.</summary>
public static class TravelOrder
{
    // The earth's mean radius, IUGG.
    private const double EarthKm = 6371.0088;

    // All orders of seven are 5,040; a day has fewer stops than that.
    private const int MostTried = 7;

    /// <summary>Distance along the ground as the crow flies, in km (haversine formula); null where a place is not known.</summary>
    public static double? Km(Site a, Site b)
    {
        if (a is not { Latitude: { } aNorth, Longitude: { } aEast } || b is not { Latitude: { } bNorth, Longitude: { } bEast })
            return null;
        static double Rad(double degrees) => degrees * Math.PI / 180;
        var h =
            Math.Pow(Math.Sin(Rad(bNorth - aNorth) / 2), 2)
            + Math.Cos(Rad(aNorth)) * Math.Cos(Rad(bNorth)) * Math.Pow(Math.Sin(Rad(bEast - aEast) / 2), 2);
        return 2 * EarthKm * Math.Asin(Math.Min(1, Math.Sqrt(h)));
    }

    /// <summary>The shortest way through all, from a start; sites whose place is not known come last, as given.</summary>
    public static IReadOnlyList<Site> Of(Site start, IReadOnlyList<Site> stops)
    {
        var placed = stops.Where(s => Km(start, s) is not null).ToList();
        var rest = stops.Except(placed);
        return [.. placed.Count <= MostTried ? Best(start, placed).Way : Nearest(start, placed), .. rest];
    }

    private static (double Km, IReadOnlyList<Site> Way) Best(Site from, IReadOnlyList<Site> left)
    {
        if (left.Count == 0)
            return (0, []);
        return left.Select(next =>
            {
                var (km, way) = Best(next, [.. left.Where(s => s != next)]);
                return (Km: km + (Km(from, next) ?? 0), Way: (IReadOnlyList<Site>)[next, .. way]);
            })
            .MinBy(t => t.Km);
    }

    private static IReadOnlyList<Site> Nearest(Site from, List<Site> left)
    {
        var way = new List<Site>();
        for (var at = from; left.Count > 0; way.Add(at))
        {
            at = left.MinBy(s => Km(at, s)) ?? left[0];
            left.Remove(at);
        }
        return way;
    }
}
