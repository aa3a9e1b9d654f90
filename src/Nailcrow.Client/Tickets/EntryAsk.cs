using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Client.Tickets;

/// <summary>An entry to be written.</summary>
/// <param name="Id">UUIDv7 made by the sender; sending it again is sending it once. Left out, the service makes one.</param>
/// <param name="At">When it happened, on the sender's clock. Left out: now.</param>
/// <param name="SentAt">The sender's clock at the moment of sending, from which its offset is measured where the sender has not.</param>
/// <param name="ClockBehindMs">
/// How far the sender's clock is behind the service's, in milliseconds, by the <c>Date</c> of the service's answers; negative where it
/// is ahead. Counts only beside <paramref name="SentAt"/>, which shows whether it can be so.
/// </param>
public sealed record EntryAsk(
    EntryBody Body,
    Guid? Id = null,
    DateTimeOffset? At = null,
    DateTimeOffset? SentAt = null,
    long? ClockBehindMs = null
);

/// <summary>Proof that an entry is kept.</summary>
/// <param name="Repeated">True where it had been sent before.</param>
/// <param name="Said">What the answered step came to, such as how a serial compared.</param>
/// <param name="Raised">Discrepancies that are open now and were not before.</param>
public sealed record Receipt(
    long Ticket,
    long Seq,
    Guid Id,
    string Hash,
    bool Repeated,
    Stage Stage,
    NextAction Next,
    string? Said,
    IReadOnlyList<Discrepancy> Raised
);

/// <summary>Entries in order of arrival.</summary>
/// <param name="Next">Pass as <c>after</c> for the next page; null at the end.</param>
/// <param name="Unread">Those that this version cannot read; their bodies are shown as they were written.</param>
/// <param name="Told">Each entry as one sentence, in the same order.</param>
/// <param name="Corrected">Those that count otherwise than they were written.</param>
/// <param name="Rows">How each stands in the story, in the same order.</param>
public sealed record JournalPage(
    IReadOnlyList<Entry> Entries,
    long? Next,
    IReadOnlyList<UnreadEntry>? Unread = null,
    IReadOnlyList<string>? Told = null,
    IReadOnlyList<CorrectedEntry>? Corrected = null,
    IReadOnlyList<JournalRow>? Rows = null
);

/// <summary>An entry that was put right later.</summary>
/// <param name="By">Who put it right.</param>
/// <param name="Correction">The entry that says so.</param>
/// <param name="Instead">What was so; null where nothing of it was, or where only its time was another.</param>
/// <param name="HappenedAt">When it happened; null where its time was right. Where both are null, it was not so.</param>
public sealed record CorrectedEntry(long Seq, long Correction, string By, string? Instead, DateTimeOffset? HappenedAt, string Because);

/// <param name="Why">What this version stumbles over.</param>
public sealed record UnreadEntry(long Seq, string Why);

/// <summary>A page of tickets.</summary>
/// <param name="Next">Pass as <c>before</c> for the next page where they come newest first, else as <c>skip</c>; null at the end.</param>
/// <param name="Count">How many there are in all, counted no further than <see cref="MostCounted"/>.</param>
/// <param name="Turns">Whose turn it is on each, from where whoever asked stands, in the same order.</param>
public sealed record TicketPage(IReadOnlyList<TicketLine> Tickets, long? Next, IReadOnlyList<Turn>? Turns = null, int? Count = null)
{
    public const int MostCounted = 1_001;
}

/// <summary>All that is open, by whose turn it is from where whoever asked stands.</summary>
public sealed record WaitingView(IReadOnlyList<WaitingGroup> Groups);

/// <summary>Every move there is on a ticket for whoever asked.</summary>
public sealed record MoveList(long Ticket, IReadOnlyList<OfferedMove> Moves);

/// <summary>What the live stream says of each new entry; its event id resumes the stream.</summary>
public sealed record LiveEntry(long Position, long Ticket, long Seq, string Kind, string By);
