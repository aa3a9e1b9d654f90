using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tickets.Planning;

/// <summary>What was promised for a site when its fault arrived. Kept with the report: a contract that changes later changes nothing.</summary>
/// <param name="RespondHours">An engineer on site within so many working hours.</param>
/// <param name="RestoreHours">Redundancy back within so many working hours.</param>
public sealed record Promise(
    string Hours,
    string Zone,
    int? RespondHours = null,
    int? RestoreHours = null,
    IReadOnlyList<DateOnly>? Holidays = null
)
{
    /// <summary>A site's own promise, and for what it does not promise itself its customer's.</summary>
    public static Promise? Of(Site site, Customer? customer)
    {
        var (respond, restore) = (site.RespondHours ?? customer?.RespondHours, site.RestoreHours ?? customer?.RestoreHours);
        return respond is null && restore is null ? null : new(site.Hours ?? "24/7", site.Zone, respond, restore, site.Holidays);
    }

    // Whoever writes an entry has the ticket's deadlines reckoned, for its line in the lists, and its promise is the same all the time.
    private static readonly ConditionalWeakTable<Promise, Reckoned> Known = [];

    /// <summary>The time that counts there; null where its hours or its zone cannot be read.</summary>
    public WorkingTime? Time() => Known.GetValue(this, p => new(p.Read())).Time;

    /// <summary>When so much working time has passed since a moment, the stopped stretches left out; null where it never does.</summary>
    public DateTimeOffset? After(DateTimeOffset start, int hours, IReadOnlyList<Stretch> stopped)
    {
        var known = Known.GetValue(this, p => new(p.Read()));
        return stopped.Count > 0
            ? known.Time?.After(start, TimeSpan.FromHours(hours), stopped)
            : known.Without.GetOrAdd((start, hours), of => known.Time?.After(of.Start, TimeSpan.FromHours(of.Hours), []));
    }

    private WorkingTime? Read() =>
        OpeningHours.Parse(Hours) is Parsed<OpeningHours>.Ok(var hours) && TimeZoneInfo.TryFindSystemTimeZoneById(Zone, out var zone)
            ? new(hours, (Holidays ?? []).ToHashSet(), zone)
            : null;

    /// <param name="Time">As its hours say.</param>
    private sealed record Reckoned(WorkingTime? Time)
    {
        /// <summary>What is due when, where no hold has stopped the clock.</summary>
        public ConcurrentDictionary<(DateTimeOffset Start, int Hours), DateTimeOffset?> Without { get; } = new();
    }
}

[JsonConverter(typeof(KebabEnum<DeadlineKind>))]
public enum DeadlineKind
{
    Respond,
    Restore,

    /// <summary>A drive that goes back has to be there.</summary>
    Return,
}

/// <summary>One promise's deadline, or a return's.</summary>
/// <param name="About">The drive that goes back; null for a promise.</param>
/// <param name="At">When it is due; null while a hold stops its clock for good.</param>
/// <param name="MetAt">When it was kept, or too late; null while it is open.</param>
/// <param name="Stopped">A hold stops its clock now; the time moves on for as long as it lasts.</param>
public sealed record Deadline(DeadlineKind Kind, DateTimeOffset? At, DateTimeOffset? MetAt, bool Stopped, string? About = null)
{
    public static IReadOnlyList<Deadline> Of(Ticket ticket, DateTimeOffset now) => [.. Promised(ticket, now), .. Returned(ticket)];

    /// <summary>A day that was agreed is kept until it is over; no hold stops it.</summary>
    private static IEnumerable<Deadline> Returned(Ticket ticket)
    {
        foreach (var back in ticket.Returns)
            if (back.DueBy is { } due)
                yield return new(DeadlineKind.Return, EndOf(due), back.ArrivedAt, Stopped: false, back.Serial);
    }

    private static DateTimeOffset EndOf(DateOnly day) => new(day.AddDays(1).ToDateTime(TimeOnly.MinValue), TimeSpan.Zero);

    private static IReadOnlyList<Deadline> Promised(Ticket ticket, DateTimeOffset now)
    {
        if (ticket.Report?.Promise is not { } promise || ticket.ReceivedAt is not { } received || promise.Time() is null)
            return [];
        var restored = Exposure.Of(ticket, now)?.Until;
        return
        [
            .. new[]
            {
                (DeadlineKind.Respond, promise.RespondHours, ticket.ArrivedAt),
                (DeadlineKind.Restore, promise.RestoreHours, restored),
            }
                .Where(d => d.Item2 is not null)
                .Select(d => new Deadline(
                    d.Item1,
                    promise.After(received, d.Item2 ?? 0, Stops(ticket, now)),
                    d.Item3,
                    d.Item3 is null && ticket.Holds.Exists(h => h.To is null && h.Stops)
                )),
        ];
    }

    /// <summary>The one that is due next, of those not kept yet.</summary>
    public static Deadline? Next(Ticket ticket, DateTimeOffset now) =>
        ticket.IsEnded ? null : Of(ticket, now).Where(d => d.MetAt is null).MinBy(d => d.At ?? DateTimeOffset.MaxValue);

    private static IReadOnlyList<Stretch> Stops(Ticket ticket, DateTimeOffset now) =>
        [.. ticket.Holds.Where(h => h.Stops).Select(h => new Stretch(h.From, h.To ?? now)).Where(s => s.To > s.From)];
}
