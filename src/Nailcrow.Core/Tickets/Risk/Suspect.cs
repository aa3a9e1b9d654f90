using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Risk;

/// <summary>A drive that evidence speaks against, beside the one the ticket is about.</summary>
/// <param name="Weight">How much speaks against it; the worst is listed first.</param>
/// <param name="ReadFrom">A rebuild of the array at stake reads from it.</param>
public sealed record Suspect(string Bay, string? Serial, int Weight, bool ReadFrom, string Sentence)
{
    // A drive's own word that it has failed outweighs everything; that it will fail, most. A self-test is a measurement,
    // log lines are counted, the rest are hints. A machine-wide beeper or mail says nothing of one drive by itself.
    private const int Faulted = 100;
    private const int Worn = 50;
    private const int EachSign = 10;
    private const int MostOfSigns = 30;

    // Under this a drive has one weak hint against it, which most drives have at some time.
    private const int Worth = 30;

    public static IReadOnlyList<Suspect> Of(Snapshot now, DriveArray? atStake, IReadOnlyList<Evidence> evidence, string? targetLabel) =>
        [
            .. now
                .Bays.Where(b => b.Serial is not null && b.Label != targetLabel)
                .Select(b => Weighed(b, atStake, Repeated.Of(evidence.Where(e => e.Step is null && e.IsAbout(b))), now.TakenAt))
                .OfType<Suspect>()
                .OrderByDescending(s => s.Weight)
                .ThenBy(s => s.Bay.PadLeft(6, '0'), StringComparer.Ordinal),
        ];

    private static Suspect? Weighed(Bay bay, DriveArray? atStake, IReadOnlyList<Repeated> against, DateTimeOffset now)
    {
        var weight = OwnWord(bay) + Math.Min(MostOfSigns, EachSign * (bay.Signs?.Count ?? 0)) + against.Sum(e => e.Weight(now));
        if (bay is { Role: BayRole.Dropped, Health: DriveHealth.Good } && weight < Worth)
            return new(
                bay.Label,
                bay.Serial,
                weight,
                false,
                $"Bay {bay.Label} ({bay.Serial}) was dropped and reads good: look at link, bay and cable before ordering a part."
            );
        if (weight < Worth)
            return null;
        var readFrom = atStake is not null && bay.Array == atStake.Name && Standing.Serves(bay);
        return new(bay.Label, bay.Serial, weight, readFrom, Told(bay, against, readFrom));
    }

    private static string Told(Bay bay, IReadOnlyList<Repeated> against, bool readFrom)
    {
        var signs = (bay.Signs ?? []).Concat(against.Select(e => e.Told())).ToList();
        var readsWell = bay.Health is DriveHealth.Good or DriveHealth.Unknown;
        var word = readsWell ? $"reads {Words.Of(bay.Health)}, but" : $"is {Words.Of(bay.Health)}";
        var speaks = signs.Count == 0 ? "" : $"{(readsWell ? "" : ":")} {string.Join(", ", signs)}";
        return $"Bay {bay.Label} ({bay.Serial}) {word}{speaks}." + (readFrom ? " The rebuild reads from it: backup first." : "");
    }

    private static int OwnWord(Bay bay) =>
        bay.Health switch
        {
            DriveHealth.Faulted => Faulted,
            DriveHealth.Worn => Worn,
            _ => 0,
        };
}
