using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps;

/// <summary>What somebody saw that ties a bay's printed label to the software's name for it.</summary>
/// <param name="How">"pull": the drive that came out of this bay was the one the software names. "light": its lamp was the one that showed.
/// "wrong-pull": a hand there drew a drive that the software has elsewhere.</param>
public sealed record BaySighting(string Bay, string? Name, string How, DateTimeOffset At, long Ticket);

/// <summary>A map of bays is a hypothesis until a pull or a light confirmed it; what one visit learnt is kept for the next.</summary>
public static class BayMap
{
    public static IEnumerable<BaySighting> Learnt(Ticket ticket) =>
        ticket.Swaps.SelectMany(swap => Slipped(ticket, swap).Concat(Learnt(ticket, swap)));

    /// <summary>A hand at this bay drew a drive that the software has elsewhere: it slipped, or the names are off.</summary>
    private static IEnumerable<BaySighting> Slipped(Ticket ticket, Swap swap) =>
        swap
            .NearMisses.Where(miss => miss is { NotSo: null, OnPurpose: null }) // a trial pull is no slip of a hand
            .Select(miss => (Miss: miss, There: ticket.Before?.Holding(miss.Serial)))
            .Where(s => s.There is not null && !string.Equals(s.There.Label, s.Miss.Bay, StringComparison.OrdinalIgnoreCase))
            .Select(s => new BaySighting(s.Miss.Bay, s.There!.Name ?? s.There.Label, WrongPull, s.Miss.At, ticket.Number));

    private const string WrongPull = "wrong-pull";

    private static IEnumerable<BaySighting> Learnt(Ticket ticket, Swap swap)
    {
        if (
            ticket.Before is not { } before
            || swap is not { PulledAt: { } at, Bay: { } bay, OutSerial: { } serial }
            || before.Holding(serial) is not { } there
        )
            yield break;
        yield return new(bay, there.Name, "pull", at, ticket.Number);
        if (swap.BayMarks.Exists(m => m.Mark.Contains("lamp", StringComparison.OrdinalIgnoreCase) && m.Attempt == swap.Attempt))
            yield return new(bay, there.Name, "light", at, ticket.Number);
    }

    /// <summary>What to say before this bay is pulled by its name; null where a pull or a light has confirmed it and nobody disagrees.</summary>
    public static string? WarningOf(string bay, IReadOnlyList<BaySighting> seen) =>
        Warning(seen) is { } warning && seen.Count > 0 ? warning
        : seen.Any(s => string.Equals(s.Bay, bay, StringComparison.OrdinalIgnoreCase)) ? null
        : $"No pull and no light has confirmed yet which drive the software means by bay {bay}. Trust the marks, not the name.";

    private static bool IsShownSince(BaySighting slip, IReadOnlyList<BaySighting> seen) =>
        seen.Any(s => s.How == "light" && s.At > slip.At && string.Equals(s.Bay, slip.Bay, StringComparison.OrdinalIgnoreCase));

    /// <summary>Why a map should not be trusted yet; null where it may be.</summary>
    public static string? Warning(IReadOnlyList<BaySighting> seen)
    {
        if (seen.Count == 0)
            return "Nobody has confirmed this map yet: no pull and no light has shown which bay a name belongs to.";
        if (seen.Where(s => s.How == WrongPull && !IsShownSince(s, seen)).MaxBy(s => s.At) is { } slip)
            return $"On {TicketNumber.Text(slip.Ticket)} a hand at bay {slip.Bay} drew the drive that the software calls {slip.Name}: it slipped, or the "
                + "names are off. Trust the marks, not the name.";
        var split = seen.Where(s => s.Name is not null && s.How != WrongPull)
            .GroupBy(s => s.Name)
            .FirstOrDefault(g => g.Select(s => s.Bay).Distinct().Count() > 1);
        return split is null
            ? null
            : $"Two visits disagree: {split.Key} was found in bays "
                + $"{string.Join(" and ", split.Select(s => s.Bay).Distinct())}. The cabling was changed, or a record is "
                + "wrong.";
    }
}
