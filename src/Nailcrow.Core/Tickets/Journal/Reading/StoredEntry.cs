namespace Nailcrow.Core.Tickets.Journal.Reading;

/// <summary>An entry as a table holds it: its text, and beside it what has to be found quickly.</summary>
/// <param name="Text">What was accepted. The columns beside it were taken from it, and are used where it cannot be read.</param>
public sealed record StoredEntry(
    Guid Id,
    long Ticket,
    long Seq,
    DateTimeOffset At,
    DateTimeOffset RecordedAt,
    string By,
    string Kind,
    string Text,
    string Hash
);
