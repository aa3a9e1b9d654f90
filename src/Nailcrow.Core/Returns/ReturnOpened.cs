using System.Text.Json.Serialization;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns;

[JsonConverter(typeof(KebabEnum<ReturnReason>))]
public enum ReturnReason
{
    /// <summary>The new drive comes when this one is there.</summary>
    ExchangeUnderWarranty,

    /// <summary>What came out of a machine, or of a box of which nothing is said.</summary>
    BackToStores,

    /// <summary>A new part that never worked goes back as such.</summary>
    DeadOnArrival,

    /// <summary>The new drive came first; this one is owed for it.</summary>
    AdvanceExchange,

    /// <summary>A part that nobody needed, in its sealed box.</summary>
    BackUnopened,

    /// <summary>The same, and somebody has opened its box.</summary>
    BackOpened,

    /// <summary>We destroy it, where we can do that.</summary>
    ToBeDestroyed,

    /// <summary>It is kept as it is, for somebody who has to find out what happened.</summary>
    Evidence,
}

/// <summary>A drive is to go back: why, to whom, under which number, by when.</summary>
/// <param name="LateCost">What is charged when it is late, with its currency: "180.00 EUR".</param>
/// <param name="DataAgreedBy">Who at the customer agreed that a drive with their data on it may leave.</param>
public sealed record ReturnOpened(
    string Serial,
    ReturnReason Reason,
    Holder To,
    string? Authorisation = null,
    DateOnly? DueBy = null,
    string? DataAgreedBy = null,
    string? LateCost = null
) : DecisionBody
{
    public override string Told() => $"Return of {Serial} to {To.AsKnown()}, {EntryTold.Said(Words.Of(Reason))}";

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now)
    {
        var serial = SerialNumber.Normalise(Serial);
        var held = ticket.Custody.HolderOf(serial);
        if (held is not { Kind: HolderKind.Engineer })
            return held is null
                ? $"{serial} has not moved on this ticket; with an engineer: {Returnable(ticket)}."
                : $"{serial} is with {held}; only what an engineer holds is returned.";
        if (ticket.Returns.Exists(r => r.Serial == serial))
            return $"A return for {serial} is open already.";
        if (!To.MayKeep || To.Kind == HolderKind.Bay)
            return $"A return ends with a depot, a maker or the customer, not with {To}.";
        if (Target.HoldsCustomersData(ticket, serial) && string.IsNullOrWhiteSpace(DataAgreedBy) && Target.WhyDataStays(ticket) is { } no)
            return no;
        if (AsWhatItIsNot(ticket, serial) is { } not)
            return not;
        return To.Kind == HolderKind.Maker && Reason != ReturnReason.BackToStores && string.IsNullOrWhiteSpace(NumberFor(ticket))
            ? "An exchange under warranty has an authorisation number; without it the maker sends the drive back."
            : null;
    }

    /// <summary>Why it cannot go back as this; null where it can.</summary>
    private string? AsWhatItIsNot(Ticket ticket, string serial) =>
        Reason is ReturnReason.ToBeDestroyed or ReturnReason.Evidence && To.AsKnown().Kind != HolderKind.Depot
            ? $"What is {Words.Of(Reason).Replace('-', ' ')} goes to a depot, and nowhere else."
        : Reason is ReturnReason.BackUnopened or ReturnReason.BackOpened && Target.CameOut(ticket, serial)
            ? $"{serial} came out of the machine; it is no part that nobody needed. Say {Words.Of(ReturnReason.BackToStores)}."
        : Reason is ReturnReason.BackUnopened && ticket.Custody.Moves.Exists(m => m.Serial == serial && m.To.Kind == HolderKind.Bay)
            ? $"{serial} was in a bay on this ticket, so its box was opened. Say {Words.Of(ReturnReason.BackOpened)}."
        : null;

    /// <summary>A day on which it was due before anybody opened it is a slip; a zone's difference is none.</summary>
    public override string? NotThen(DateTimeOffset happened) =>
        DueBy is { } due && due < DateOnly.FromDateTime(happened.UtcDateTime).AddDays(-1)
            ? $"It would be due on {Carrying.Parcel.Day(due)}, before it is opened ({happened.UtcDateTime:yyyy-MM-dd}); "
                + "say the day by which it has to be there."
            : null;

    /// <summary>The number it goes back under: the one that was said, else the one the maker gave when it was asked.</summary>
    private string? NumberFor(Ticket ticket) => string.IsNullOrWhiteSpace(Authorisation) ? GivenTo(ticket)?.Authorisation : Authorisation;

    private Claim? GivenTo(Ticket ticket) => To.Kind == HolderKind.Maker ? MakerAnswered.Standing(ticket, Serial) : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Returns = ticket.Returns.Add(
                new(
                    SerialNumber.Normalise(Serial),
                    Words.Of(Reason),
                    To.AsKnown(),
                    NumberFor(ticket),
                    DueBy ?? GivenTo(ticket)?.DueBy,
                    stamp.At,
                    stamp.By
                )
                {
                    LateCost = LateCost ?? GivenTo(ticket)?.LateCost,
                }
            ),
        };

    private static string Returnable(Ticket ticket)
    {
        var open = ticket.Custody.Now.Where(h => h.Holder.Kind == HolderKind.Engineer).Select(h => h.Serial).ToList();
        return open.Count == 0 ? "nothing" : string.Join(", ", open);
    }
}
