using System.Collections.Immutable;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns;

/// <summary>One hand-over of one drive.</summary>
/// <param name="Entry">The entry that tells of it.</param>
/// <param name="ToldBy">Another ticket that did it, where this one only follows; null where it is this one's own.</param>
public sealed record CustodyMove(string Serial, Holder To, DateTimeOffset At, string By, Guid Entry, long? ToldBy = null);

/// <summary>Who holds each drive of a ticket now, and every hand-over that led there.</summary>
public sealed record Custody(ImmutableList<CustodyMove> Moves)
{
    public static readonly Custody Nothing = new(ImmutableList<CustodyMove>.Empty);

    public Custody Move(string serial, Holder to, Stamp stamp) =>
        new(Moves.Add(new(SerialNumber.Normalise(serial), to, stamp.At, stamp.By, stamp.Entry)));

    /// <summary>Another ticket handed it on: it is where that one says.</summary>
    public Custody Follow(string serial, Holder to, Stamp stamp, long ticket) =>
        new(Moves.Add(new(SerialNumber.Normalise(serial), to, stamp.At, stamp.By, stamp.Entry, ticket)));

    /// <summary>The hand-overs that this ticket itself tells of.</summary>
    public IEnumerable<CustodyMove> Own => Moves.Where(m => m.ToldBy is null);

    /// <summary>As if one hand-over had not been recorded.</summary>
    public Custody Without(string serial, DateTimeOffset at) =>
        new(Moves.RemoveAll(m => m.At == at && m.Serial == SerialNumber.Normalise(serial)));

    /// <summary>As if a drive had not been handed to anybody from then on.</summary>
    public Custody Since(string serial, DateTimeOffset at) =>
        new(Moves.RemoveAll(m => m.At >= at && m.Serial == SerialNumber.Normalise(serial)));

    public Holder? HolderOf(string serial) => Moves.LastOrDefault(m => m.Serial == SerialNumber.Normalise(serial))?.To;

    public IEnumerable<(string Serial, Holder Holder)> Now => Moves.GroupBy(m => m.Serial).Select(g => (g.Key, g.Last().To));

    /// <summary>Drives whose holder may not keep them; custody balances when there is none.</summary>
    public IEnumerable<(string Serial, Holder Holder)> Open => Now.Where(held => !held.Holder.MayKeep);
}
