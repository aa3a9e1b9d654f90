using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Supplies;

/// <summary>What a line of the ledger says of a supply.</summary>
[JsonConverter(typeof(KebabEnum<SupplyWay>))]
public enum SupplyWay
{
    /// <summary>So many came into the firm's hands.</summary>
    Came,

    /// <summary>So many went from one place to another.</summary>
    Moved,

    /// <summary>So many were used up, on a ticket or otherwise.</summary>
    Used,

    /// <summary>Somebody counted a place: so many are there, whatever was recorded.</summary>
    Counted,

    /// <summary>A line before it was not so; the ticket's journal says who put it right, and why.</summary>
    Undone,

    /// <summary>It was so after all.</summary>
    Redone,
}

/// <summary>One line of the ledger about a supply. As with parts, nothing in it is ever changed.</summary>
/// <param name="Id">The same for the same event, however often it is told.</param>
/// <param name="Count">Pieces, or metres, or whatever it is counted in; for a count, how many are there.</param>
/// <param name="From">Where they were: of what is moved or used, and the place that was counted.</param>
/// <param name="To">Where they are then: of what came or is moved.</param>
/// <param name="Entry">The entry of a ticket that tells of it; null for what stores does by itself.</param>
/// <param name="Of">The line that is undone or redone.</param>
public sealed record SupplyMove(
    Guid Id,
    string Supply,
    SupplyWay Way,
    int Count,
    DateTimeOffset At,
    string By,
    Holder? From = null,
    Holder? To = null,
    long? Ticket = null,
    Guid? Entry = null,
    Guid? Of = null,
    string? Note = null
)
{
    /// <summary>Most of one supply that one line tells of.</summary>
    public const int Most = 1_000_000;

    /// <summary>Order of arrival among the lines of its supply, from 1; the ledger gives it.</summary>
    public long Seq { get; init; }

    /// <summary>When it was written down; the ledger gives it.</summary>
    public DateTimeOffset RecordedAt { get; init; }
}
