using System.Text.Json;
using System.Text.Json.Serialization;
using Nailcrow.Core.Tickets.Journal.Canonical;

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
    // Clocks that are set by network time agree to well under a minute; two leave room for a slow upload.
    private static readonly TimeSpan ClockTolerance = TimeSpan.FromMinutes(2);

    /// <summary>The canonical text that was accepted: what is stored, hashed and verified. All else here is read from it.</summary>
    [JsonIgnore]
    public string Text { get; init; } = "";

    /// <summary>
    /// When it happened on the service's clock: the order in which a ticket is told. Nothing has happened that is still to
    /// come: what a clock ahead of ours dates later than its arrival counts at its arrival.
    /// </summary>
    public DateTimeOffset Happened => IsAhead ? RecordedAt : Claimed;

    /// <summary>A ticket is told in this order; what happened in the same moment goes by id.</summary>
    internal bool IsBefore(Entry other) => Happened < other.Happened || (Happened == other.Happened && Id.CompareTo(other.Id) < 0);

    /// <summary>The sender's clock, or its offset, was wrong.</summary>
    public bool IsAhead => Claimed > RecordedAt + ClockTolerance;

    /// <summary>When the sender says that it happened, corrected by what the sender's clock showed.</summary>
    public DateTimeOffset Claimed => ServiceClock.Corrected(At, ClockOffsetMs);

    /// <summary>What it says as it was written, whether or not this version can read it.</summary>
    public JsonElement BodyAsWritten() => EntryText.BodyOf(Text);

    public Stamp Stamp => new(Id, Happened, RecordedAt, By, Seq);
}

/// <summary>What a fold rule may know of the entry beside its body.</summary>
/// <param name="Seq">Its place in the order of arrival on its ticket, counted from 1.</param>
public sealed record Stamp(Guid Entry, DateTimeOffset At, DateTimeOffset RecordedAt, string By, long Seq)
{
    // Longer under way, and it had waited on a device: nobody looks at a screen that does not answer for longer.
    private static readonly TimeSpan UnderWay = TimeSpan.FromSeconds(10);

    /// <summary>
    /// The moment by which a wait is judged. What was sent as it happened was let pass by the service's clock, and stays so; what waited
    /// on a device is judged by when it happened.
    /// </summary>
    public DateTimeOffset Judged => RecordedAt - At is var way && way > TimeSpan.Zero && way <= UnderWay ? RecordedAt : At;
}
