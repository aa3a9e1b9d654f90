using System.Text.Json.Serialization;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>What is said to somebody outside.</summary>
[JsonConverter(typeof(KebabEnum<ErrandKind>))]
public enum ErrandKind
{
    AskCarrier,

    /// <summary>They have a box booked that nobody wants fetched any more.</summary>
    CallOffCarrier,
    AskMaker,
    SendMail,
}

/// <summary>How far an errand is.</summary>
[JsonConverter(typeof(KebabEnum<ErrandState>))]
public enum ErrandState
{
    Waiting,
    Done,

    /// <summary>It was tried for a day; somebody looks why, and sends it again.</summary>
    GivenUp,

    /// <summary>It was taken back before it was said.</summary>
    NotWanted,
}

public static class ErrandStates
{
    /// <summary>Nothing more becomes of it by itself, and nobody has to look at it.</summary>
    public static bool IsOver(this ErrandState state) => state is ErrandState.Done or ErrandState.NotWanted;
}

/// <summary>
/// Something that has to leave Nailcrow because of an entry. It is written with the entry, in one transaction, and done once that
/// is committed; so nothing is said outside that is not on record, and nothing on record is forgotten outside.
/// </summary>
/// <param name="Id">One id for one errand, however often it is tried.</param>
/// <param name="To">The partner, by name; of a mail, whoever gets it.</param>
/// <param name="About">The entry with which it was asked.</param>
public sealed record Errand(Guid Id, ErrandKind Kind, string To, Guid About)
{
    /// <summary>What an entry makes necessary; one that puts another right may take back what was asked, or ask it after all.</summary>
    public static IEnumerable<Errand> Between(Ticket before, Ticket after, Entry cause)
    {
        if (!MayDiffer(before, after) && cause.Body is not CarrierAnswered)
            return [];
        return
        [
            .. after
                .Parcels.Where(IsUnanswered)
                .ExceptBy(before.Parcels.Select(p => p.Asked), p => p.Asked)
                .Select(p => new Errand(p.Asked, ErrandKind.AskCarrier, p.Carrier, p.Asked)),
            .. CallOffs(before, after, cause),
            .. after
                .Claims.Where(c => c.AnsweredAt is null)
                .ExceptBy(before.Claims.Select(c => c.Asked), c => c.Asked)
                .Select(c => new Errand(c.Asked, ErrandKind.AskMaker, c.Maker, c.Asked)),
            .. after
                .Letters.Where(l => l.Waits)
                .ExceptBy(before.Letters.Select(l => l.Asked), l => l.Asked)
                .Select(l => new Errand(l.Asked, ErrandKind.SendMail, l.To, l.Asked)),
        ];
    }

    /// <summary>Whether what is to be said outside may be another after an entry than before it.</summary>
    public static bool MayDiffer(Ticket before, Ticket after) =>
        !ReferenceEquals(before.Parcels, after.Parcels)
        || !ReferenceEquals(before.Claims, after.Claims)
        || !ReferenceEquals(before.Returns, after.Returns)
        || !ReferenceEquals(before.Letters, after.Letters);

    public string Told() =>
        Kind switch
        {
            ErrandKind.AskCarrier => $"{To} is asked to fetch a box",
            ErrandKind.CallOffCarrier => $"{To} is told not to fetch a box",
            ErrandKind.SendMail => $"{To} gets a mail",
            _ => $"{To} is asked about a drive",
        };

    /// <summary>
    /// Whether one that was overtaken is done after all once it is wanted again. What is called off is asked for anew each time.
    /// </summary>
    public bool ComesBack => Kind != ErrandKind.CallOffCarrier;

    /// <summary>Whether it is still to be done, as its ticket is now: what was taken back, or answered, is not.</summary>
    public bool IsWanted(Ticket ticket) =>
        Kind switch
        {
            ErrandKind.AskCarrier => ticket.Parcels.Exists(p => p.Asked == About && IsUnanswered(p) && p.IsWaitedFor(ticket)),
            ErrandKind.CallOffCarrier => ticket.Parcels.Find(p => p.Asked == About) is not { } parcel || parcel.IsForNothing(ticket),
            ErrandKind.SendMail => ticket.Letters.Exists(l => l.Asked == About && l.Waits && l.IsStillOf(ticket)),
            _ => ticket.Claims.Exists(c => c.Asked == About && c.AnsweredAt is null),
        };

    /// <summary>Boxes that a carrier comes for, and shall not: the asking was taken back, or what was in them goes another way.</summary>
    private static IEnumerable<Errand> CallOffs(Ticket before, Ticket after, Entry cause)
    {
        var gone = before
            .Parcels.Where(p => p.Label is not null && !p.IsForNothing(before))
            .ExceptBy(after.Parcels.Select(p => p.Asked), p => p.Asked);
        var forNothing = after
            .Parcels.Where(p => p.IsForNothing(after))
            .ExceptBy(before.Parcels.Where(p => p.IsForNothing(before)).Select(p => p.Asked), p => p.Asked);
        foreach (var parcel in gone.Concat(forNothing))
            yield return new(cause.Id, ErrandKind.CallOffCarrier, parcel.Carrier, parcel.Asked);
        // They answered while it was taken back that they were asked.
        if (cause.Body is CarrierAnswered { Label: not null } booked && !after.Parcels.Exists(p => p.Asked == booked.Asked))
            yield return new(cause.Id, ErrandKind.CallOffCarrier, booked.Carrier, booked.Asked);
    }

    private static bool IsUnanswered(Parcel parcel) => parcel is { Label: null, Refused: null };
}
