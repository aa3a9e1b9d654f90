using System.Collections.Immutable;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>A ticket's entries in order of arrival, together with the ticket they make.</summary>
public sealed record TicketRecord
{
    // What comes late comes late by moments most of the time: from another device in the same second, or by a message that was overtaken.
    private const int MostLately = 16;

    private readonly ImmutableDictionary<Guid, Entry> _byId;
    private readonly Told[] _lately;
    private readonly long _bytesOfEntries;

    private TicketRecord(Ticket ticket, ImmutableList<Entry> arrived, ImmutableDictionary<Guid, Entry> byId, Told[] lately, long bytes) =>
        (Ticket, Arrived, _byId, _lately, _bytesOfEntries) = (
            arrived.IsEmpty ? ticket : ticket.AboutSomething(),
            arrived,
            byId,
            lately,
            bytes
        );

    /// <summary>One of the entries that happened last, as it counts, with the ticket that it found.</summary>
    private sealed record Told(Entry Entry, Ticket Before);

    /// <summary>Which entries were put right later.</summary>
    public Corrections Corrections { get; private init; } = Corrections.None;

    /// <summary>What is so: all entries as they count, in order of when they happened; what was not so is left out.</summary>
    public IEnumerable<Entry> AsItCounts() => Ticket.InOrder(_byId.Values, Corrections).Where(e => e.Body is not Struck);

    public Ticket Ticket { get; }

    public ImmutableList<Entry> Arrived { get; }

    /// <summary>
    /// About how many bytes of memory it takes: an entry is held as its text and as what is read from it, an earlier ticket as what of
    /// it is another since.
    /// </summary>
    public long Bytes => _bytesOfEntries + BytesOfATicket * _lately.Length;

    private const long BytesOfATicket = 2_000;

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
        var once = all.DistinctBy(e => e.Id).ToList();
        var corrections = Corrections.In(once);
        var (ticket, lately) = Follow(new(number), [], Ticket.InOrder(once, corrections));
        return new(ticket, all, once.ToImmutableDictionary(e => e.Id), lately, all.Sum(BytesOf)) { Corrections = corrections };
    }

    /// <summary>Goes on from a ticket with entries that happened after all it has.</summary>
    private static (Ticket, Told[] Lately) Follow(Ticket ticket, IEnumerable<Told> before, IEnumerable<Entry> entries)
    {
        var lately = new Queue<Told>(before);
        foreach (var entry in entries)
        {
            lately.Enqueue(new(entry, ticket));
            if (lately.Count > MostLately)
                lately.Dequeue();
            ticket = Ticket.Apply(ticket, entry);
        }
        return (ticket, [.. lately]);
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
    /// The record with one more entry. One that is late by moments has what happened since told again; one that is late by more, puts
    /// another right, or counts otherwise than it was written, the whole ticket.
    /// </summary>
    public TicketRecord With(Entry entry)
    {
        var since = _lately.Length;
        while (since > 0 && !_lately[since - 1].Entry.IsBefore(entry))
            since--;
        var isAmongThem = since > 0 || _lately is [] or [{ Before.Entries: 0 }, ..];
        if (
            !isAmongThem
            || entry.Body is EntryCorrected
            || !ReferenceEquals(Corrections.AsItCounts(entry), entry)
            || _byId.ContainsKey(entry.Id)
        )
            return Of(Ticket.Number, Arrived.Add(entry));
        var from = since < _lately.Length ? _lately[since].Before : Ticket;
        var (ticket, lately) = Follow(from, _lately[..since], [entry, .. _lately[since..].Select(t => t.Entry)]);
        return new(ticket, Arrived.Add(entry), _byId.Add(entry.Id, entry), lately, _bytesOfEntries + BytesOf(entry))
        {
            Corrections = Corrections,
        };
    }

    // A text is held at two bytes a character, what is read from it takes about as much, and lists and trees the rest.
    private static long BytesOf(Entry entry) => 4L * entry.Text.Length + 400;

    /// <summary>Databases keep different fractions of a second; the hash must not depend on which one holds the entry.</summary>
    private static DateTimeOffset ToMilliseconds(DateTimeOffset at)
    {
        var utc = at.ToUniversalTime();
        return utc.AddTicks(-(utc.Ticks % TimeSpan.TicksPerMillisecond));
    }
}
