using System.Collections.Immutable;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Core.Tickets.Ending;

/// <summary>
/// Something seen or done that reached the record after its ticket was closed: it is kept and told, and a lead says what it
/// means, or reopens the ticket.
/// </summary>
internal sealed record LateFact(Stamp Stamp, string Kind)
{
    /// <summary>What its discrepancy is about.</summary>
    public const string About = "late";

    // A machine is looked at every few seconds; what the service saw in the moment of closing says nothing that was not known.
    private static readonly TimeSpan Slow = TimeSpan.FromMinutes(1);

    public static Ticket Noted(Ticket before, Ticket folded, Entry entry) =>
        !Matters(before, entry) ? folded
        : before.IsEnded ? Told(folded, new(entry.Stamp, EntryKinds.Of(entry.Body)))
        : folded with { Delayed = StillOnItsWay(folded.Delayed, entry) };

    /// <summary>
    /// What has happened by now and arrives later: if the ticket is closed meanwhile, it is closed without it. Whatever had arrived
    /// when this happened had arrived before any closing that is still to come.
    /// </summary>
    private static ImmutableList<LateFact> StillOnItsWay(ImmutableList<LateFact> delayed, Entry entry)
    {
        var waiting = delayed.RemoveAll(d => d.Stamp.RecordedAt <= entry.Happened);
        return entry.By == People.Actor.Service.Name && entry.RecordedAt - entry.Happened <= Slow
            ? waiting
            : waiting.Add(new(entry.Stamp, EntryKinds.Of(entry.Body)));
    }

    /// <summary>The ticket is closed at this moment, and so without what was still on its way.</summary>
    public static Ticket LeftBehind(Ticket ticket, Stamp closing) =>
        ticket.Delayed.Where(d => d.Stamp.RecordedAt > closing.RecordedAt).Aggregate(ticket with { Delayed = [] }, Told);

    private static Ticket Told(Ticket ticket, LateFact late) =>
        ticket.Raise(
            late.Stamp,
            About,
            $"{late.Stamp.By} recorded '{late.Kind}' after the ticket was {Words.Of(ticket.Stage)}; it happened at "
                + $"{late.Stamp.At.UtcDateTime:yyyy-MM-dd HH:mm} UTC. Say what it means, or reopen the ticket."
        );

    private static bool Matters(Ticket ticket, Entry entry) =>
        entry.Body switch
        {
            EntryCorrected => true, // what was closed upon may be no longer so
            DecisionBody or Struck or NoteWritten or PhotoTaken or Planning.LeftSite or Unreadable => false,
            SerialKnownElsewhere or MachineSeen or MachineChanged => false, // noted with what made it known
            CarrierAnswered or MakerAnswered or LetterWent or ReturnReminded => false, // to what was asked before
            ParcelTracked tracked => tracked.IsTrouble, // where a box has been is told, and needs nobody
            SuppliesUsed => false, // a count of screws changes nothing of what was closed upon
            // A machine repeats what it has not forgotten; once is enough to have somebody look.
            EvidenceSeen when entry.By == People.Actor.Service.Name => IsFirst(ticket),
            // Likewise whoever goes on watching a rebuild that was handed over.
            ReadingTaken => IsFirst(ticket),
            _ => true,
        };

    private static bool IsFirst(Ticket ticket) => !ticket.Discrepancies.Exists(d => d is { About: About, IsOpen: true });
}
