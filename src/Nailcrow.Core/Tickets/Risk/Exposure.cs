using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Risk;

[JsonConverter(typeof(KebabEnum<ExposurePart>))]
public enum ExposurePart
{
    WaitingForPart,
    Travel,
    Work,
    Rebuild,

    /// <summary>The machine was off: nothing was read or written, and nothing could fail in use.</summary>
    SwitchedOff,
}

/// <summary>One stretch of the time without full redundancy.</summary>
/// <param name="To">Null while it lasts.</param>
/// <param name="Lasted">How long, as people say it.</param>
public sealed record ExposureStretch(ExposurePart Part, DateTimeOffset From, DateTimeOffset? To, string Lasted);

/// <summary>
/// How long the array has been exposed, and where the time went. Times in which it was whole (between two drives, after a spare
/// stepped in) are none of it, nor is what comes after.
/// </summary>
/// <param name="Until">When redundancy was back for good; null while it is not.</param>
/// <param name="Lasted">All of it, as people say it.</param>
public sealed record Exposure(DateTimeOffset Since, DateTimeOffset? Until, string Lasted, IReadOnlyList<ExposureStretch> Stretches)
{
    /// <summary>Null for a ticket without a report, and for a job on a whole array until a drive is pulled.</summary>
    public static Exposure? Of(Ticket ticket, DateTimeOffset now)
    {
        if (ticket.Report is not { } report || ticket.ReceivedAt is not { } received || (report.Job != JobKind.Fault && !ticket.HasMoved))
            return null;
        var array = Target.Array(ticket)?.Name;
        var times = Exposed(ticket, array, report.Job == JobKind.Fault ? report.Since ?? received : null).ToList();
        if (times.Count == 0)
            return null;
        var end = ticket.EndedAt ?? now;
        var stretches = times
            .SelectMany((t, nth) => Parted(ticket, t, isFirst: nth == 0))
            .SelectMany(s => WithTimeOff(ticket, s))
            .Where(s => s.To is null || s.To > s.From)
            .ToList();
        return new(
            times[0].From,
            times[^1].To,
            Told(stretches.Aggregate(TimeSpan.Zero, (sum, s) => sum + ((s.To ?? end) - s.From))),
            [.. stretches.Select(s => new ExposureStretch(s.Part, s.From, s.To ?? ticket.EndedAt, Told((s.To ?? end) - s.From)))]
        );
    }

    /// <summary>Seconds of it are nobody's concern, and told, they would make a ticket another one each second.</summary>
    private static string Told(TimeSpan lasted) => lasted < TimeSpan.FromMinutes(1) ? "under a minute" : Watch.Told(lasted);

    /// <summary>From each moment in which the array was known to be short to the first look that shows it whole.</summary>
    private static IEnumerable<(DateTimeOffset From, DateTimeOffset? To)> Exposed(Ticket ticket, string? array, DateTimeOffset? since)
    {
        var from = since;
        foreach (var (at, whole) in Changes(ticket, array).OrderBy(c => c.At))
            if (!whole)
                from ??= at;
            else if (from < at)
            {
                yield return (from.Value, at);
                from = null;
            }
        if (from is { } open)
            yield return (open, null);
    }

    private static IEnumerable<(DateTimeOffset At, bool Whole)> Changes(Ticket ticket, string? array)
    {
        foreach (var snapshot in ticket.Snapshots)
            if (snapshot.Arrays.FirstOrDefault(a => a.Name == array) is { } seen)
                yield return (snapshot.TakenAt, snapshot.IsWhole(seen));
        foreach (var swap in ticket.Swaps)
            if (swap.PulledAt is { } pulled && Thins(ticket, swap, pulled))
                yield return (pulled, false);
        // A phase that ends is not the rebuild's end.
        foreach (var reading in ticket.Readings)
            if (reading.IsTheEnd() && IsFilled(ticket, reading.At))
                yield return (reading.At, true);
    }

    /// <summary>The drive that came out was of use to its array; where nobody had looked, it is taken to be.</summary>
    private static bool Thins(Ticket ticket, Swap swap, DateTimeOffset pulled) =>
        ticket.Snapshots.FindLast(s => s.TakenAt <= pulled)?.Holding(swap.OutSerial) is not { } bay || Standing.Serves(bay);

    private static bool IsFilled(Ticket ticket, DateTimeOffset at) => ticket.Swaps.Any(s => s.InsertedAt < at);

    private static IEnumerable<(ExposurePart Part, DateTimeOffset From, DateTimeOffset? To)> Parted(
        Ticket ticket,
        (DateTimeOffset From, DateTimeOffset? To) time,
        bool isFirst
    )
    {
        var from = time.From;
        foreach (var (part, end) in Ends(ticket, time, isFirst && ticket.Report?.Job == JobKind.Fault))
        {
            if (end <= from)
                continue; // it was over before, as the waiting on an early job
            if (end > time.To)
                break;
            yield return (part, from, end ?? time.To);
            if ((end ?? time.To) is not { } reached)
                yield break;
            from = reached;
        }
        if (from < time.To)
            yield return (ticket.Swaps.Any(s => s.InsertedAt <= from) ? ExposurePart.Rebuild : ExposurePart.Work, from, time.To);
    }

    /// <summary>The times in which the machine was off are told apart from what they fell into.</summary>
    private static IEnumerable<(ExposurePart Part, DateTimeOffset From, DateTimeOffset? To)> WithTimeOff(
        Ticket ticket,
        (ExposurePart Part, DateTimeOffset From, DateTimeOffset? To) stretch
    )
    {
        var from = stretch.From;
        foreach (var off in ticket.Power.Where(p => !(p.To <= from) && !(stretch.To <= p.From)))
        {
            var begins = off.From > from ? off.From : from;
            if (begins > from)
                yield return (stretch.Part, from, begins);
            var ends = off.To is { } on && !(stretch.To < on) ? on : stretch.To;
            yield return (ExposurePart.SwitchedOff, begins, ends);
            if (ends is not { } reached || reached == stretch.To)
                yield break;
            from = reached;
        }
        yield return (stretch.Part, from, stretch.To);
    }

    /// <summary>What each part of such a time ends with, in order: each drive of it is worked on and rebuilt in its turn.</summary>
    private static IEnumerable<(ExposurePart Part, DateTimeOffset? End)> Ends(
        Ticket ticket,
        (DateTimeOffset From, DateTimeOffset? To) time,
        bool hasComing
    )
    {
        if (hasComing)
        {
            var part = ticket.Parts.FirstOrDefault()?.Serial;
            var issued = ticket.Custody.Moves.FirstOrDefault(m => m.To.Kind == HolderKind.Engineer && m.Serial == part)?.At;
            yield return (ExposurePart.WaitingForPart, issued ?? ticket.ArrivedAt);
            yield return (ExposurePart.Travel, ticket.ArrivedAt);
        }
        var swaps = ticket.Swaps.Where(s => s.InsertedAt > time.From && !(s.InsertedAt > time.To)).OrderBy(s => s.InsertedAt).ToList();
        for (var i = 0; i < swaps.Count; i++)
        {
            yield return (ExposurePart.Work, swaps[i].InsertedAt);
            yield return (ExposurePart.Rebuild, i + 1 < swaps.Count ? swaps[i + 1].PulledAt : time.To);
        }
        if (swaps.Count == 0)
            yield return (ExposurePart.Work, time.To);
    }
}
