using Nailcrow.Core.Intake;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets;

/// <summary>
/// Something seen or done that reached the record after its ticket was closed: it is kept and told, and a lead says what it
/// means, or reopens the ticket.
/// </summary>
internal sealed record LateFact(Stamp Stamp, string Kind)
{
    /// <summary>What its discrepancy is about.</summary>
    public const string About = "late";

    // What is sent while it happens arrives within seconds.
    private static readonly TimeSpan Slow = TimeSpan.FromMinutes(1);

    public static Ticket Noted(Ticket before, Ticket folded, Entry entry) =>
        !Matters(before, entry) ? folded
        : before.IsEnded ? Told(folded, new(entry.Stamp, EntryKinds.Of(entry.Body)))
        : entry.RecordedAt - entry.Happened > Slow
            ? folded with
            {
                Delayed = folded.Delayed.Add(new(entry.Stamp, EntryKinds.Of(entry.Body))),
            }
        : folded;

    /// <summary>The ticket is closed at this moment, and so without what was still on its way.</summary>
    public static Ticket LeftBehind(Ticket ticket, Stamp closing) =>
        ticket.Delayed.Where(d => d.Stamp.RecordedAt > closing.RecordedAt).Aggregate(ticket with { Delayed = [] }, Told);

    private static Ticket Told(Ticket ticket, LateFact late) =>
        ticket.Raise(
            late.Stamp,
            About,
            $"{late.Stamp.By} recorded '{late.Kind}' after the ticket was {Words.Of(ticket.Stage)}; it happened at {late.Stamp.At.UtcDateTime:yyyy-MM-dd HH:mm} UTC. Say what it means, or reopen the ticket."
        );

    private static bool Matters(Ticket ticket, Entry entry) =>
        entry.Body switch
        {
            DecisionBody or NoteWritten or PhotoTaken or SerialKnownElsewhere or Unreadable => false,
            // A machine repeats what it has not forgotten; once is enough to have somebody look.
            EvidenceSeen when entry.By == People.Actor.Service.Name => IsFirst(ticket),
            // Likewise whoever goes on watching a rebuild that was handed over.
            ReadingTaken => IsFirst(ticket),
            _ => true,
        };

    private static bool IsFirst(Ticket ticket) => !ticket.Discrepancies.Exists(d => d is { About: About, IsOpen: true });
}
