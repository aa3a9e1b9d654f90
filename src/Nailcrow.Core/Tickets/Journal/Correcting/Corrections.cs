using System.Collections.Immutable;

namespace Nailcrow.Core.Tickets.Journal.Correcting;

/// <summary>What an entry said before another one, and what it says with it; null where it says nothing.</summary>
/// <param name="At">When that happened; null where it is as the other entry says.</param>
public sealed record Change(EntryBody? Was, EntryBody? Says, DateTimeOffset? At = null)
{
    /// <summary>What is said newly, where it is of that kind; null too where only its time is another.</summary>
    public T? Newly<T>()
        where T : EntryBody => ReferenceEquals(Was, Says) ? null : Says as T;
}

/// <summary>Which entries of a ticket count otherwise than they were written. The set of entries decides, never their order.</summary>
public sealed class Corrections
{
    public static readonly Corrections None = new(ImmutableDictionary<Guid, Entry>.Empty);

    private readonly ImmutableDictionary<Guid, Entry> _of;

    private Corrections(ImmutableDictionary<Guid, Entry> of) => _of = of;

    /// <summary>Of several corrections of one entry the last counts; one that was itself taken back counts for nothing.</summary>
    public static Corrections In(IEnumerable<Entry> entries)
    {
        var of = ImmutableDictionary<Guid, Entry>.Empty;
        foreach (
            var correction in entries.Where(e => e.Body is EntryCorrected).OrderByDescending(e => e.Happened).ThenByDescending(e => e.Id)
        )
            if (!of.ContainsKey(correction.Id) && ((EntryCorrected)correction.Body).Entry is var corrected && !of.ContainsKey(corrected))
                of = of.Add(corrected, correction);
        return of.IsEmpty ? None : new(of);
    }

    /// <summary>
    /// What an entry changes in what is said: of a correction, and of one that takes a correction back, what the entry says that it is
    /// about. Whoever holds what is said against other books holds this against them, and no way round is left.
    /// </summary>
    public static Change By(TicketRecord record, Intent intent, DateTimeOffset now)
    {
        if (intent.Body is not EntryCorrected correction)
            return new(null, intent.Body);
        if (record.Find(correction.Entry) is not { } entry || record.Find(intent.Id) is not null)
            return new(null, null); // it is ruled on, or answered, as what it is
        var about = entry.Body is EntryCorrected taken ? taken.Entry : entry.Id;
        var (was, says) = (Counting(record, about), Counting(record.With(record.Next(intent, now)), about));
        return new(was?.Body, says?.Body, says?.Happened);
    }

    private static Entry? Counting(TicketRecord record, Guid entry) => record.AsItCounts().FirstOrDefault(e => e.Id == entry);

    /// <summary>The entry that puts this one right; null where it counts as it was written.</summary>
    public Entry? Of(Guid entry) => _of.GetValueOrDefault(entry);

    /// <summary>The entry as it counts; what was only written because of one that says something else now does not.</summary>
    internal Entry AsItCounts(Entry entry) =>
        _of.IsEmpty || entry.Body is EntryCorrected ? entry
        : Of(entry.Id) is { Body: EntryCorrected correction } right ? PutRight(entry, correction, right.By)
        : entry.Body.Cause() is { } cause && Of(cause) is { Body: EntryCorrected { IsOfTimeOnly: false } other } why
            ? NotSo(entry, why.By, other.Because)
        : entry;

    private static Entry PutRight(Entry entry, EntryCorrected correction, string by) =>
        correction.IsNotSo()
            ? NotSo(entry, by, correction.Because)
            : entry with
            {
                Body = correction.Instead ?? entry.Body,
                At = correction.HappenedAt ?? entry.At,
                ClockOffsetMs = correction.HappenedAt is null ? entry.ClockOffsetMs : 0,
            };

    private static Entry NotSo(Entry entry, string by, string because) => entry with { Body = new Struck(entry.Body, $"{by}: {because}") };
}
