using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Store.Tickets;

/// <summary>What became of an intended entry.</summary>
public abstract record Written
{
    private Written() { }

    /// <summary>On disk. <paramref name="Repeated"/> is true where it already was: sending twice is sending once.</summary>
    public sealed record Kept(Entry Entry, TicketRecord Record, bool Repeated) : Written;

    public sealed record Declined(Ruling Ruling) : Written;

    /// <summary>Nothing was opened: its machine has a newer ticket than whoever would open one knew of, and it may be about the same.</summary>
    public sealed record Overtaken(long By) : Written;

    /// <summary>Something other than an entry was done in its turn.</summary>
    internal sealed record Done : Written;

    /// <summary>The entry id is in use for another entry.</summary>
    public sealed record IdTaken(string Reason) : Written;
}

/// <summary>News that an entry was kept, in order of arrival over all tickets.</summary>
public sealed record JournalItem(long Position, long Ticket, long Seq, string Kind, string By);
