using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Stores;

namespace Nailcrow.Client.Returns;

/// <summary>Parts that came in, or that go from one place of stores to another.</summary>
/// <param name="Id">Made once by whoever sends it: what is sent twice is taken once. One that counts several parts makes each one's from it.</param>
/// <param name="To">A depot, with its shelf, or a person's van.</param>
/// <param name="AsRead">The label was read again: a serial that reads nearly like an expected or known one is another.</param>
/// <param name="NewDepot">It goes into a depot in which nothing lies yet, and not into the one whose name reads nearly the same.</param>
public sealed record ReceiveAsk(
    Guid Id,
    string Serial,
    Holder To,
    string? Model = null,
    long? Bytes = null,
    bool AsRead = false,
    bool NewDepot = false
);

/// <summary>What became of a part that came in.</summary>
/// <param name="Asks">Nothing is recorded yet: something has to be said first.</param>
/// <param name="Ticket">The ticket that waited for it.</param>
/// <param name="NearDepot">The depot that there is, where the one that was named is not there and reads nearly the same.</param>
public sealed record ReceiveAnswer(string Serial, string Says, bool Asks, long? Ticket, StoredPart? Now, string? NearDepot = null);

/// <summary>Parts that go to another place of stores together.</summary>
/// <param name="NewDepot">As of what comes in.</param>
public sealed record MoveAsk(Guid Id, IReadOnlyList<string> Serials, Holder To, bool NewDepot = false);

public sealed record MoveAnswer(IReadOnlyList<ReceiveAnswer> Parts);

/// <summary>A part that is handed to somebody: for the ticket it is set aside for, else into their van.</summary>
public sealed record HandOutAsk(Guid Id, string Serial, string To);

/// <summary>A shelf or a van, counted.</summary>
/// <param name="Book">Also writes down that what is recorded elsewhere is here.</param>
public sealed record CountAsk(Guid Id, Holder At, IReadOnlyList<string> Serials, bool Book = false);

/// <param name="Booked">What was written down of each part that is recorded elsewhere.</param>
public sealed record CountAnswer(Counted Counted, IReadOnlyList<ReceiveAnswer> Booked);

/// <summary>A part that nobody finds, which no ticket has to do with. A lead writes it off.</summary>
public sealed record WriteOffAsk(Guid Id, string Serial, string Because, string OnIt);

/// <summary>A part that no ticket has to do with was wiped.</summary>
public sealed record WipeAsk(Guid Id, string Serial, string Method);

/// <param name="Next">What to ask on with; null on the last page.</param>
public sealed record PartPage(IReadOnlyList<StoredPart> Parts, string? Next);
