using Nailcrow.Core.People;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>One record in a ticket's journal. What it says is its body; the rest says who, when and in what order it arrived.</summary>
/// <param name="Id">UUIDv7, made where the entry is made, so that a repeat is recognised.</param>
/// <param name="Seq">Order of arrival in this ticket, from 1, given by the service.</param>
/// <param name="At">When it happened, on the clock of whoever saw it.</param>
/// <param name="ClockOffsetMs">How far that clock was behind the service's when the entry was sent, in milliseconds.</param>
/// <param name="RecordedAt">The service's clock.</param>
/// <param name="Hash">SHA-256 over the previous entry's hash and this entry's canonical JSON, in hex.</param>
public sealed record Entry(
    Guid Id,
    long Ticket,
    long Seq,
    DateTimeOffset At,
    long ClockOffsetMs,
    DateTimeOffset RecordedAt,
    string By,
    EntryBody Body,
    string Hash
)
{
    /// <summary>When it happened on the service's clock: the order in which a ticket is told.</summary>
    public DateTimeOffset Happened => At.AddMilliseconds(ClockOffsetMs);

    public Stamp Stamp => new(Id, Happened, RecordedAt, By);
}

/// <summary>What a fold rule may know of the entry beside its body.</summary>
public sealed record Stamp(Guid Entry, DateTimeOffset At, DateTimeOffset RecordedAt, string By);
