using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Planning;

/// <summary>Why somebody left the site.</summary>
[JsonConverter(typeof(KebabEnum<VisitEnd>))]
public enum VisitEnd
{
    /// <summary>What was to be done there is done.</summary>
    Done,

    /// <summary>The machine does the rest by itself, and is watched.</summary>
    RebuildRuns,
    NoAccess,
    CustomerSaidNo,
    NoBackup,
    WaitsForPart,
    AnotherDay,

    /// <summary>A colleague goes on.</summary>
    HandedOver,

    /// <summary>They left and did not say when: the ticket ended, they came again another day, or somebody else handed it on.</summary>
    NotSaid,
}

/// <summary>One person's time at the site for a ticket; there may be several, one after the other or side by side.</summary>
/// <param name="LeftAt">Null while they are there, and where nobody said when they left.</param>
/// <param name="Learnt">What the next one has to know.</param>
public sealed record SiteVisit(
    string Engineer,
    DateTimeOffset ArrivedAt,
    DateTimeOffset? LeftAt = null,
    VisitEnd? Ended = null,
    string? Learnt = null
)
{
    /// <summary>What was to be done there is still to be done.</summary>
    public bool EndedEarly =>
        Ended is VisitEnd.NoAccess or VisitEnd.CustomerSaidNo or VisitEnd.NoBackup or VisitEnd.WaitsForPart or VisitEnd.AnotherDay;

    [JsonIgnore]
    public bool IsThere => Ended is null;

    public string Told() =>
        LeftAt is { } left
            ? $"{EntryTold.Clock(ArrivedAt)} to {EntryTold.Clock(left)}, {Watch.Told(left - ArrivedAt)}: {EntryTold.Said(Words.Of(Ended ?? VisitEnd.Done))}"
                + $"{(Learnt is { } learnt ? $". {learnt.TrimEnd('.')}" : "")}."
            : $"Since {EntryTold.Clock(ArrivedAt)}{(IsThere ? "" : "; when they left is not on record")}.";
}

/// <summary>Who was at the site for a ticket, and when: each person's own times, and no time that nobody said.</summary>
internal static class SiteVisits
{
    // Nobody works at one machine for longer without going home.
    private static readonly TimeSpan Longest = TimeSpan.FromHours(12);

    /// <summary>Who is there already has not come a second time; who came on another day has left meanwhile.</summary>
    public static Ticket Arrived(Ticket ticket, string who, DateTimeOffset at) =>
        There(ticket, who) is not { } there ? ticket with { SiteVisits = ticket.SiteVisits.Add(new(who, at)) }
        : !IsNew(there, at) ? ticket
        : Arrived(Ended(ticket, v => v == there, null, VisitEnd.NotSaid), who, at);

    /// <summary>Somebody's visit that has not ended; null where they are not there.</summary>
    public static SiteVisit? There(Ticket ticket, string who) => ticket.SiteVisits.Find(v => v.Engineer == who && v.IsThere);

    /// <summary>Whether somebody who says that they have arrived says something new.</summary>
    public static bool IsNew(SiteVisit there, DateTimeOffset now) => now - there.ArrivedAt >= Longest;

    /// <param name="at">When they left; null where nobody said.</param>
    public static Ticket Ended(Ticket ticket, Predicate<SiteVisit> which, DateTimeOffset? at, VisitEnd why, string? learnt = null) =>
        ticket with
        {
            SiteVisits =
            [
                .. ticket.SiteVisits.Select(v => v.IsThere && which(v) ? v with { LeftAt = at, Ended = why, Learnt = learnt } : v),
            ],
        };
}
