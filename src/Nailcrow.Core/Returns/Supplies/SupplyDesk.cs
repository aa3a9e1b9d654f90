using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Supplies;

/// <summary>How many one holder has.</summary>
public sealed record SupplyAt(Holder Holder, long Count);

/// <summary>One supply, wherever it is.</summary>
/// <param name="Lately">How many were used within the last <see cref="Ordering.Days"/> days.</param>
/// <param name="Order">How many to order, as for parts; null where there are enough, or where one place alone was asked for.</param>
public sealed record SupplyStock(string Name, IReadOnlyList<SupplyAt> Where, long Held, long Lately, OrderLine? Order);

/// <summary>One supply's whole line.</summary>
/// <param name="Told">Each line as one sentence with its time and who wrote it, the newest last; of a long one the last are told.</param>
/// <param name="Earlier">How many lines are not told.</param>
public sealed record SupplyView(SupplyStock Now, IReadOnlyList<SupplyTold> Told, int Earlier);

public sealed record SupplyTold(DateTimeOffset At, string By, long? Ticket, string Says);

/// <summary>What came, and what became of it.</summary>
public sealed record SupplyBalance(string Name, long Came, long Found, long Used, long Missing, long Held, long Difference);

/// <summary>What stores may write of a supply by itself. What a ticket tells is a fact, and is not asked about here.</summary>
public static class SupplyDesk
{
    /// <summary>Why not, as a sentence that says what would be taken; null where it may be written.</summary>
    /// <param name="now">How many are where.</param>
    /// <param name="isNew">Nothing has been told of it before.</param>
    /// <param name="known">What other supplies are called.</param>
    public static string? WhyNot(SupplyMove move, SupplyLine now, bool isNew, IEnumerable<string> known) =>
        WhyNotSuch(move)
        ?? (
            !isNew ? WhyNotEnough(move, now)
            : move.Way is not (SupplyWay.Came or SupplyWay.Counted) ? $"Nothing is known of {move.Supply}. {Known(known)}"
            : null
        );

    private static string? WhyNotSuch(SupplyMove move) =>
        move.Way is not (SupplyWay.Came or SupplyWay.Moved or SupplyWay.Used or SupplyWay.Counted)
            ? $"Supplies came, are moved, are used or are counted; '{Words.Of(move.Way)}' is said by a correction of its entry."
        : move.Count < Least(move.Way) || move.Count > SupplyMove.Most
            ? $"{move.Count:N0} is no count; {Least(move.Way)} to {SupplyMove.Most:N0} are taken."
        : move.Way is SupplyWay.Came or SupplyWay.Moved && WhyNoPlace(move.To, "to") is { } noTo ? noTo
        : move.Way is not SupplyWay.Came && WhyNoPlace(move.From, move.Way == SupplyWay.Counted ? "at" : "from") is { } noFrom ? noFrom
        : move.Way == SupplyWay.Moved && move.From == move.To ? $"They are in {move.To} already; say another place."
        : null;

    private static int Least(SupplyWay way) => way == SupplyWay.Counted ? 0 : 1;

    private static string? WhyNoPlace(Holder? place, string which) =>
        place is null || string.IsNullOrWhiteSpace(place.Name) ? $"Say {which} which depot, or whose van."
        : place.Kind is not (HolderKind.Depot or HolderKind.Van)
            ? $"Supplies lie in depots and vans, not with {Words.Of(place.Kind)}; what is used up is said as used."
        : place.Shelf is not null ? "Supplies are counted by depot and van, not by shelf; leave the shelf out."
        : place.Name.Length > 200 ? "A depot's name has at most 200 characters."
        : null;

    private static string? WhyNotEnough(SupplyMove move, SupplyLine now) =>
        move is { Way: SupplyWay.Moved or SupplyWay.Used, From: { } from } && now.At(from) < move.Count
            ? $"{move.Supply}: by the record {now.At(from):N0} {(now.At(from) == 1 ? "is" : "are")} in {from}; {move.Count:N0} cannot leave it. "
                + "Count there first if there are more."
            : null;

    private static string Known(IEnumerable<string> known) =>
        known.Take(12).ToList() is { Count: > 0 } some
            ? $"Known: {string.Join(", ", some)}. What is new comes first, or is counted."
            : "Nothing is counted yet; what is new comes first, or is counted.";

    // One of several and one slip of the hand ("drive carier" for "drive carriers"); of a short name that is half of it.
    private const int MostSlips = 2;
    private const int Short = 8;

    /// <summary>A supply that is called nearly the same; null where none is.</summary>
    public static string? Near(string name, IEnumerable<string> known) =>
        Nearest.Of(Folded(name), known, Folded, name.Trim().Length < Short ? 1 : MostSlips);

    private static string Folded(string name) => SupplyName.Parse(name) is Parsed<SupplyName>.Ok(var ok) ? ok.Key : name;

    /// <summary>What became of it, in one sentence.</summary>
    public static string Says(SupplyMove move, SupplyLine before) =>
        move.Way switch
        {
            SupplyWay.Came => $"{move.Supply}: {move.Count:N0} came to {move.To}; {before.At(move.To!) + move.Count:N0} are there.",
            SupplyWay.Moved => $"{move.Supply}: {move.Count:N0} went from {move.From} to {move.To}.",
            SupplyWay.Used => $"{move.Supply}: {move.Count:N0} used up; {before.At(move.From!) - move.Count:N0} left in {move.From}.",
            _ => (move.Count - before.At(move.From!)) switch
            {
                0 => $"{move.Supply}: {move.Count:N0} in {move.From}, as recorded.",
                > 0 and var more => $"{move.Supply}: {move.Count:N0} in {move.From}, {more:N0} more than recorded.",
                var fewer => $"{move.Supply}: {move.Count:N0} in {move.From}, {-fewer:N0} fewer than recorded.",
            },
        };
}
