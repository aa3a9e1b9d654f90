using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Returns.Letters;

/// <summary>
/// When somebody is reminded of a return, and who. Before the day: who holds the drive, or who opened its return once it is on its way,
/// since they can still ask the carrier. After it: they and the leads, anew each week until it is there or written off.
/// </summary>
public static class Reminding
{
    /// <summary>So many days before it is due, the first time.</summary>
    public const int DaysBefore = 2;

    private const int DaysBetweenLate = 7;

    /// <summary>Which reminder of a return is due on a day: 0 the one before, 1 and on those after; null where none is.</summary>
    /// <param name="today">In UTC, as days of returns are.</param>
    public static int? Nth(PartReturn open, DateOnly today) =>
        open is not { DueBy: { } due, ArrivedAt: null } ? null
        : today.DayNumber > due.DayNumber ? 1 + ((today.DayNumber - due.DayNumber - 1) / DaysBetweenLate)
        : today.DayNumber >= due.DayNumber - DaysBefore ? 0
        : null;

    /// <summary>Who is reminded, by name, each once.</summary>
    /// <param name="leads">Whoever leads, and is told of what is late.</param>
    public static IReadOnlyList<string> Whom(Ticket ticket, PartReturn open, int nth, IEnumerable<string> leads) =>
        [
            .. new[] { ticket.Custody.HolderOf(open.Serial) is { Kind: HolderKind.Engineer } holder ? holder.Name : open.OpenedBy }
                .Concat(nth > 0 ? leads : [])
                .Distinct(StringComparer.Ordinal),
        ];

    /// <summary>What the mail says below its subject, sentence by sentence.</summary>
    public static IReadOnlyList<string> Said(Ticket ticket, PartReturn open, DateOnly today)
    {
        var due = open.DueBy ?? today; // only what has a day is reminded of
        var late = today > due;
        var where = ticket.Custody.HolderOf(open.Serial) is { } holder ? $"It is {holder.Where()}." : "Nobody has recorded where it is.";
        return
        [
            $"{open.Serial} {(late ? "should have been" : "has to be")} with {open.To.Name} by {Carrying.Parcel.Day(due)}"
                + $"{(late ? $", {Days(today.DayNumber - due.DayNumber)} ago" : "")}: {open.Reason.Replace('-', ' ')}"
                + $"{(open.Authorisation is { } number ? $", under {number}" : "")}.",
            where,
            .. open.LateCost is { Length: > 0 } cost ? new[] { $"Late, it costs {cost}." } : [],
            open.SentAt is null
                ? "Hand it to a carrier, and say so on the ticket; if it is no longer to go back, say that."
                : $"{open.Carrier} has had it since {open.SentAt.Value.UtcDateTime:yyyy-MM-dd}; ask them where it is"
                    + $"{(open.Tracking is { } tracking ? $" ({tracking})" : "")}.",
        ];
    }

    private static string Days(int days) => days == 1 ? "a day" : $"{days} days";
}
