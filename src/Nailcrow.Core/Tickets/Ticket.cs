using System.Collections.Immutable;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tickets;

/// <summary>One fault at one appliance: the fold of its journal, and nothing else.</summary>
public sealed record Ticket(long Number)
{
    public FaultReported? Report { get; init; }
    public DateTimeOffset? ReceivedAt { get; init; }
    public ImmutableList<Evidence> Evidence { get; init; } = [];
    public string? Engineer { get; init; }
    public string? HoldReason { get; init; }

    /// <summary>When what is on hold is looked at again.</summary>
    public DateTimeOffset? HoldUntil { get; init; }
    public ImmutableList<Hold> Holds { get; init; } = [];
    public Planning.PlannedVisit? Visit { get; init; }
    public HelpCall? Help { get; init; }
    public ImmutableList<Planning.SiteVisit> SiteVisits { get; init; } = [];

    /// <summary>When somebody first came.</summary>
    public DateTimeOffset? ArrivedAt => SiteVisits.FirstOrDefault()?.ArrivedAt;

    /// <summary>Since when whoever is there now, or was there last, is there.</summary>
    public DateTimeOffset? OnSiteSince => SiteVisits.FirstOrDefault(v => v.IsThere)?.ArrivedAt ?? SiteVisits.LastOrDefault()?.ArrivedAt;

    public bool IsOnSite => SiteVisits.Exists(v => v.IsThere);
    public string? Backup { get; init; }
    public string? BackupDetail { get; init; }

    /// <summary>What somebody agreed to before it was done, on which terms, as the sheet asks; null where it asks for nothing.</summary>
    public Agreement? Agreed { get; init; }

    /// <summary>What the customer was advised to do beside this ticket's work.</summary>
    public ImmutableList<AdviceGiven> Advice { get; init; } = [];

    /// <summary>What was moved to get at the machine and is not back yet.</summary>
    public ImmutableList<string> Aside { get; init; } = [];

    /// <summary>The times in which the machine was off, oldest first.</summary>
    public ImmutableList<PowerOff> Power { get; init; } = [];

    public bool IsOff => Power is [.., { To: null }];

    /// <summary>What the data came back from, where no swap could bring it back.</summary>
    public string? RestoredFrom { get; init; }

    /// <summary>How much the array holds, as its screen said at steps that ask for it, oldest first.</summary>
    public ImmutableList<SpaceSeen> SpaceSeen { get; init; } = [];
    public ImmutableList<Snapshot> Snapshots { get; init; } = [];
    public Snapshot? Before { get; init; }
    public Snapshot? After { get; init; }
    public bool LocatorOn { get; init; }
    public ImmutableList<ReservedPart> Parts { get; init; } = [];

    /// <summary>Every part that was to go in and did not, in order; another one may have its place by now.</summary>
    public ImmutableList<ReservedPart> GivenUp { get; init; } = [];
    public RunSheet? Sheet { get; init; }
    public Run? Run { get; init; }
    public ImmutableList<Interrupted> Interrupted { get; init; } = [];

    /// <summary>Sheets that another one took the place of, and how far each was followed, oldest first.</summary>
    public ImmutableList<Interrupted> LeftSheets { get; init; } = [];

    /// <summary>The drives chosen to come out, in order; empty where the report's one is all there is.</summary>
    public ImmutableList<string> Chosen { get; init; } = [];

    /// <summary>Swaps of this ticket that are over; the one under way, or the last, is <see cref="Swap"/>.</summary>
    public ImmutableList<Swap> EarlierSwaps { get; init; } = [];

    /// <summary>The same drive came out and went back, and was not good after all: what was done, and is no swap.</summary>
    public ImmutableList<Swap> SeatedInVain { get; init; } = [];
    public Swap Swap { get; init; } = Swap.NotBegun;

    /// <summary>Bays of this machine in which a drive went in on another ticket meanwhile.</summary>
    public ImmutableHashSet<string> SwappedBeside { get; init; } = ImmutableHashSet.Create<string>(StringComparer.OrdinalIgnoreCase);
    public ImmutableList<Photo> Photos { get; init; } = [];

    /// <summary>Pictures that are kept no more, signatures among them, by their ids: whatever the order in which one heard of them.</summary>
    public ImmutableDictionary<Guid, Removal> PicturesRemoved { get; init; } = ImmutableDictionary<Guid, Removal>.Empty;
    public string? RestoreConfirmedBy { get; init; }
    public ImmutableList<Reading> Readings { get; init; } = [];

    /// <summary>How much the rebuild copies, where that was chosen; else it is as the model says.</summary>
    public RebuildChosen? RebuildChosen { get; init; }

    /// <summary>What was wiped here, oldest first.</summary>
    public ImmutableList<Wipe> Wiped { get; init; } = [];
    public Custody Custody { get; init; } = Custody.Nothing;
    public ImmutableList<PartReturn> Returns { get; init; } = [];

    /// <summary>What without serials was used up on it: carriers, screws, cables.</summary>
    public ImmutableList<SupplyUse> Supplies { get; init; } = [];

    /// <summary>Boxes that carriers were asked to fetch, oldest first.</summary>
    public ImmutableList<Parcel> Parcels { get; init; } = [];

    /// <summary>What makers were asked about drives of it, oldest first.</summary>
    public ImmutableList<Claim> Claims { get; init; } = [];

    /// <summary>What of it went out by mail, or is to.</summary>
    public ImmutableList<Letter> Letters { get; init; } = [];
    public ImmutableList<Discrepancy> Discrepancies { get; init; } = [];
    public string? SignedOffBy { get; init; }

    /// <summary>The customer's own hand, where they signed on a screen.</summary>
    public SignedOnScreen? Signed { get; init; }
    public TicketClosed? Closing { get; init; }
    public TicketCancelled? Cancelling { get; init; }
    public DateTimeOffset? EndedAt { get; init; }

    /// <summary>Other tickets that have to do with this one.</summary>
    public ImmutableList<Linking.TicketLink> Links { get; init; } = [];
    public ImmutableList<Reopening> Reopenings { get; init; } = [];

    /// <summary>Facts that took long to arrive: a ticket may have been closed without them.</summary>
    internal ImmutableList<LateFact> Delayed { get; init; } = [];

    public long Entries { get; init; }

    public Snapshot? Latest => Snapshots.LastOrDefault();

    /// <summary>Who took the last snapshot, and on which ticket of this machine.</summary>
    public LookTaken? LastLook { get; init; }

    public IEnumerable<Swap> Swaps => EarlierSwaps.Append(Swap);

    /// <summary>Some drive of this ticket has left its bay: from then on "before" stays what it was.</summary>
    public bool HasMoved => Swaps.Any(s => s.HasBegun);

    public DateTimeOffset? FirstPulledAt => Swaps.FirstOrDefault()?.PulledAt;

    public int DrivesWanted => Math.Max(1, Chosen.Count);

    /// <summary>Parts that are to go in, or went in; what was given up is none.</summary>
    public int PartsSetAside => Parts.Count(p => p.GivenUp is null);

    /// <summary>The part for the drive whose turn it is.</summary>
    public ReservedPart? Part => Parts.Count > EarlierSwaps.Count ? Parts[EarlierSwaps.Count] : Parts.LastOrDefault();

    /// <summary>The same while it is one; null where it was given up and its place waits for another.</summary>
    public ReservedPart? PartToFit => Part is { GivenUp: null } part ? part : null;

    /// <summary>The swap that a step is about.</summary>
    public Swap SwapOf(RunStep? step) => step?.Drive is { } drive && drive < EarlierSwaps.Count ? EarlierSwaps[drive] : Swap;

    /// <summary>There is something that a customer can have seen.</summary>
    public bool WorkWasDone => Swap.InSerial is not null || RestoreConfirmedBy is not null || Run is { IsFinished: true };

    public bool IsEnded => Closing is not null || Cancelling is not null;

    /// <summary>What came in after the end and waits for a lead; null where there is nothing, or no end yet.</summary>
    public Discrepancy? OpenAfterEnd => IsEnded ? Discrepancies.Find(d => d.IsOpen && (d.About == LateFact.About || d.At > EndedAt)) : null;

    /// <summary>Ended, and nothing has come in since that somebody has to look at.</summary>
    public bool IsAtRest => IsEnded && OpenAfterEnd is null;

    /// <summary>Nothing comes out: a drive goes into a bay that is empty.</summary>
    public bool OnlyAdds => Report?.Job == JobKind.Addition;

    public Stage Stage =>
        Cancelling is not null ? Stage.Cancelled
        : Closing is not null ? Stage.Closed
        : Swap.InSerial is not null && (Run is { IsFinished: true } || Returns.Count > 0) ? Stage.Returning
        : Swap.InSerial is not null ? Stage.Rebuilding
        : IsOnSite ? Stage.OnSite
        : Engineer is not null ? Stage.Planned
        : Stage.Received;

    /// <summary>
    /// The ticket that a set of entries makes. The set decides, not the order: entries are told in order of when they
    /// happened on the service's clock, ties by id, and one that is here twice counts once. One that was put right counts as that.
    /// </summary>
    public static Ticket Fold(long number, IEnumerable<Entry> entries)
    {
        var all = entries.DistinctBy(e => e.Id).ToList();
        return InOrder(all, Corrections.In(all)).Aggregate(new Ticket(number), Apply);
    }

    /// <summary>Entries as they count, in the order in which a ticket is told.</summary>
    internal static IEnumerable<Entry> InOrder(IEnumerable<Entry> entries, Corrections corrections) =>
        entries.Select(corrections.AsItCounts).OrderBy(e => e.Happened).ThenBy(e => e.Id);

    /// <summary>One more entry that happened after all the others.</summary>
    internal static Ticket Apply(Ticket ticket, Entry entry)
    {
        var folded = Followed(ticket, entry);
        if (entry.IsAhead)
            folded = folded.Raise(
                entry.Stamp,
                "clock",
                $"An entry says it happened {Watch.Told(entry.Claimed - entry.RecordedAt)} after it was recorded; the sending device's clock was wrong."
            );
        return LateFact.Noted(ticket, folded, entry) with { Entries = ticket.Entries + 1 };
    }

    /// <summary>
    /// A rule of today that stumbles over an entry of yesterday must not take the whole ticket with it: it is told, and a lead
    /// reads it.
    /// </summary>
    private static Ticket Followed(Ticket ticket, Entry entry)
    {
        try
        {
            return entry.Body.Fold(ticket, entry.Stamp);
        }
        catch (Exception e) when (e is not (OutOfMemoryException or StackOverflowException))
        {
            return ticket.Raise(
                entry.Stamp,
                Unreadable.About,
                $"An entry of the kind '{EntryKinds.Of(entry.Body)}' by {entry.By} cannot be followed, and counts for nothing: {e.Message}"
            );
        }
    }

    /// <summary>A ticket whose report was taken out of the record is still a ticket, and still shown.</summary>
    internal Ticket AboutSomething() => Report is null ? this with { Report = Intake.FaultReported.Lost } : this;

    /// <summary>Another part is to go in: the sheet names it from now on.</summary>
    internal Ticket WithAnotherPart(string old, string part, Stamp stamp) => PartExchanged.On(this, old, part, stamp);

    /// <summary>Names of discrepancies are made of the entry that raised them; one entry may raise several about the same thing.</summary>
    internal Ticket Raise(Stamp stamp, string about, string sentence)
    {
        var name = $"{about}-{stamp.Entry.ToString("N")[^8..]}";
        var before = Discrepancies.Count(d => d.Id == name || d.Id.StartsWith($"{name}-", StringComparison.Ordinal));
        return this with
        {
            Discrepancies = Discrepancies.Add(
                new(before == 0 ? name : $"{name}-{before + 1}", about, sentence, stamp.At, stamp.By) { Entry = stamp.Entry }
            ),
        };
    }
}
