using Nailcrow.Core.People;

namespace Nailcrow.Core.Tickets.Journal.Correcting;

/// <summary>An earlier entry was wrong: it stays in the record, and counts as what is said here, or not at all.</summary>
/// <param name="Entry">Id of the entry of this ticket that is put right.</param>
/// <param name="Because">Why; the report tells it.</param>
/// <param name="Instead">What was so, of the same kind. Null where nothing of it was, or only its time was wrong.</param>
/// <param name="HappenedAt">When it happened, on the service's clock; null where its time was right.</param>
public sealed record EntryCorrected(Guid Entry, string Because, EntryBody? Instead = null, DateTimeOffset? HappenedAt = null) : DecisionBody
{
    /// <summary>Nothing of the entry was so.</summary>
    public bool IsNotSo() => Instead is null && HappenedAt is null;

    internal bool IsOfTimeOnly => Instead is null && HappenedAt is not null;

    public override string Told() => $"Put right: {(Instead is { } so ? $"{so.Told()}. " : IsNotSo() ? "it was not so. " : "")}{Because}";

    public override bool MayFollowTheEnd() => true;

    /// <summary>What it is about is not known to the ticket, but to its record: <see cref="Correctable"/> rules on it.</summary>
    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        string.IsNullOrWhiteSpace(Because) ? "Say what was wrong; the report tells it." : null;

    /// <summary>It changes how another entry counts, and does nothing of its own.</summary>
    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket;
}
