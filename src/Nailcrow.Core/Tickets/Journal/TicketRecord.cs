using System.Collections.Immutable;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>A ticket's entries in order of arrival, together with the ticket they make.</summary>
public sealed record TicketRecord
{
    private readonly ImmutableDictionary<Guid, Entry> _byId;
    private readonly Entry? _lastTold;

    private TicketRecord(Ticket ticket, ImmutableList<Entry> arrived, ImmutableDictionary<Guid, Entry> byId, Entry? lastTold) =>
        (Ticket, Arrived, _byId, _lastTold) = (ticket, arrived, byId, lastTold);

    public Ticket Ticket { get; }

    public ImmutableList<Entry> Arrived { get; }

    public long Head => Arrived.Count;

    public static TicketRecord Of(long number, IEnumerable<Entry> arrived)
    {
        var all = arrived.ToImmutableList();
        var lastTold = all.OrderBy(e => e.Happened).ThenBy(e => e.Id).LastOrDefault();
        return new(Ticket.Fold(number, all), all, all.ToImmutableDictionary(e => e.Id), lastTold);
    }

    public Entry? Find(Guid id) => _byId.GetValueOrDefault(id);

    /// <summary>The entry an intent becomes when it arrives now: next in number, chained to the last.</summary>
    public Entry Next(Intent intent, DateTimeOffset now)
    {
        var open = new Entry(
            intent.Id,
            Ticket.Number,
            Head + 1,
            ToMilliseconds(intent.At),
            intent.ClockOffsetMs,
            ToMilliseconds(now),
            intent.Actor.Name,
            intent.Body,
            ""
        );
        return open with { Hash = HashChain.Next(Arrived is [.., var last] ? last.Hash : HashChain.Start, open) };
    }

    /// <summary>The record with one more entry; a late one makes the whole ticket be told again.</summary>
    public TicketRecord With(Entry entry) =>
        _lastTold is null || Earlier(_lastTold, entry)
            ? new(Ticket.Apply(Ticket, entry), Arrived.Add(entry), _byId.Add(entry.Id, entry), entry)
            : Of(Ticket.Number, Arrived.Add(entry));

    private static bool Earlier(Entry a, Entry b) =>
        a.Happened < b.Happened || (a.Happened == b.Happened && a.Id.CompareTo(b.Id) < 0);

    /// <summary>Databases keep different fractions of a second; the hash must not depend on which one holds the entry.</summary>
    private static DateTimeOffset ToMilliseconds(DateTimeOffset at)
    {
        var utc = at.ToUniversalTime();
        return utc.AddTicks(-(utc.Ticks % TimeSpan.TicksPerMillisecond));
    }
}
