using System.Collections.Immutable;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>A ticket's entries in order of arrival, together with the ticket they make.</summary>
public sealed record TicketRecord
{
    private readonly ImmutableDictionary<Guid, Entry> _byId;
    private readonly Entry? _lastTold;

    private TicketRecord(Ticket ticket, ImmutableList<Entry> arrived, ImmutableDictionary<Guid, Entry> byId, Entry? lastTold, long bytes) =>
        (Ticket, Arrived, _byId, _lastTold, Bytes) = (arrived.IsEmpty ? ticket : ticket.AboutSomething(), arrived, byId, lastTold, bytes);

    /// <summary>Which entries were put right later.</summary>
    public Corrections Corrections { get; private init; } = Corrections.None;

    /// <summary>What is so: all entries as they count, in order of when they happened; what was not so is left out.</summary>
    public IEnumerable<Entry> AsItCounts() => Ticket.InOrder(_byId.Values, Corrections).Where(e => e.Body is not Struck);

    public Ticket Ticket { get; }

    public ImmutableList<Entry> Arrived { get; }

    /// <summary>About how many bytes of memory it takes: an entry is held as its text and as what is read from it.</summary>
    public long Bytes { get; }

    /// <summary>
    /// The number of the last entry. Where somebody cut entries out there are fewer of them, and the next still has a number of its
    /// own.
    /// </summary>
    public long Head => Arrived is [.., var last] ? Math.Clamp(last.Seq, Arrived.Count, NumbersEnd) : 0;

    // A number that somebody wrote over may be anything; what follows it is numbered all the same.
    private const long NumbersEnd = 1_000_000_000_000;

    public static TicketRecord Of(long number, IEnumerable<Entry> arrived)
    {
        var all = arrived.ToImmutableList();
        var corrections = Corrections.In(all);
        var lastTold = Ticket.InOrder(all, corrections).LastOrDefault();
        return new(Ticket.Fold(number, all), all, all.DistinctBy(e => e.Id).ToImmutableDictionary(e => e.Id), lastTold, all.Sum(BytesOf))
        {
            Corrections = corrections,
        };
    }

    /// <summary>Entries after a number, in order of arrival.</summary>
    public IEnumerable<Entry> After(long seq)
    {
        // Numbers follow each other unless somebody cut some out, so an entry stands at its number or before it.
        var from = (int)Math.Clamp(seq, 0, Arrived.Count);
        while (from > 0 && Arrived[from - 1].Seq > seq)
            from--;
        for (var i = from; i < Arrived.Count; i++)
            yield return Arrived[i];
    }

    /// <summary>When the newest entry was recorded: what is told of the same record is told as of the same moment.</summary>
    /// <exception cref="InvalidOperationException">There is no entry.</exception>
    public DateTimeOffset LastRecorded => Arrived.Max(e => e.RecordedAt);

    public Entry? Find(Guid id) => _byId.GetValueOrDefault(id);

    /// <summary>The entry an intent becomes when it arrives now: next in number, chained to the last.</summary>
    public Entry Next(Intent intent, DateTimeOffset now)
    {
        var written = intent.Written();
        var open = new Entry(
            intent.Id,
            Ticket.Number,
            Head + 1,
            ToMilliseconds(intent.At),
            intent.ClockOffsetMs,
            ToMilliseconds(now),
            intent.Actor.Name,
            written.ReadBack,
            ""
        );
        var text = EntryText.Of(open, written.Text);
        return open with { Text = text, Hash = HashChain.Next(Arrived is [.., var last] ? last.Hash : HashChain.Start, text) };
    }

    /// <summary>
    /// The record with one more entry. One that is late, puts another right, or was put right before it came makes the whole ticket
    /// be told again.
    /// </summary>
    public TicketRecord With(Entry entry) =>
        entry.Body is not EntryCorrected && Corrections.Of(entry.Id) is null && _lastTold?.IsBefore(entry) != false
            ? new(Ticket.Apply(Ticket, entry), Arrived.Add(entry), _byId.SetItem(entry.Id, entry), entry, Bytes + BytesOf(entry))
            {
                Corrections = Corrections,
            }
            : Of(Ticket.Number, Arrived.Add(entry));

    // A text is held at two bytes a character, what is read from it takes about as much, and lists and trees the rest.
    private static long BytesOf(Entry entry) => 4L * entry.Text.Length + 400;

    /// <summary>Databases keep different fractions of a second; the hash must not depend on which one holds the entry.</summary>
    private static DateTimeOffset ToMilliseconds(DateTimeOffset at)
    {
        var utc = at.ToUniversalTime();
        return utc.AddTicks(-(utc.Ticks % TimeSpan.TicksPerMillisecond));
    }
}
