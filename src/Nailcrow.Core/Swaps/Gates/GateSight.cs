using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Gates;

/// <summary>A gate's facts as they are seen from one step of a run: of its drive, its swap and its array.</summary>
internal sealed class GateSight(Ticket ticket, Run run, RunStep step)
{
    private readonly Swap _swap = ticket.SwapOf(step);
    private readonly SheetDrive? _drive = ticket.Sheet?.DriveOf(step);

    public string? PartInHand() =>
        ticket.Parts.Find(p => p.GivenUp is not null) is { GivenUp: { } why } gone
            ? $"{gone.Serial} was given up ({Words.Of(why).Replace('-', ' ')}); stores reserves and issues another."
        : ticket.PartsSetAside < ticket.DrivesWanted || ticket.Parts.Exists(p => p.IssuedTo is null)
            ? ticket.DrivesWanted == 1 ? "No replacement has been issued for this ticket; stores reserves and issues one."
                : $"{ticket.Parts.Count(p => p.IssuedTo is not null)} of {ticket.DrivesWanted} replacements have been "
                    + "issued for this ticket; stores reserves and issues them."
        : null;

    public string? SnapshotBefore() => Fresh is null ? TakeOne(FreshSince) : null;

    public string? NotRebuilding() =>
        Fresh is not { } now ? TakeOne(FreshSince)
        : ArrayOf(now) is not { } array ? NoArray
        : array.State == ArrayState.Rebuilding || now.Holding(array).Any(b => b.Role == BayRole.Filling)
            ? $"{array.Name} is rebuilding. Wait until it has ended, then take a snapshot again."
        : null;

    public string? PullNotFatal() =>
        Fresh is not { } now ? TakeOne(FreshSince)
        : Held(now) is var (bay, not) && not is not null ? not
        : BayVerdict.For(now, bay!) is var verdict && verdict.NeedsALead() // Held gives a bay or why not
            ? $"{(verdict.Verdict == PullVerdict.Fatal ? $"Pulling bay {bay!.Label} is fatal" : $"What pulling bay {bay!.Label} would do is not known")}: "
                + $"{verdict.Reason} Only a lead may let this go on."
        : null;

    public string? WholeBefore() =>
        Fresh is not { } now ? TakeOne(FreshSince)
        : ArrayOf(now) is not { } array ? NoArray
        : !now.IsWhole(array)
            ? $"{array.Name} is {Words.Of(array.State)} with {now.MembersOf(array)} of {array.DesignMembers} "
                + (
                    ticket.Sheet?.ComesBack == ComesBack.Added
                        ? "members. It would rebuild onto a drive that is added now; that is a swap, on a ticket of its own."
                        : "members. A drive that works is not pulled from it now; ask a lead."
                )
        : null;

    public string? Released() =>
        Fresh is not { } now ? TakeOne(FreshSince)
        : Held(now) is var (bay, not) && not is not null ? not
        : bay!.Role is BayRole.Member or BayRole.Filling
            // Held gives a bay or why not
            ? $"Bay {bay.Label} is still {Words.Of(bay.Role)} of {bay.Array}; the machine has not released it. Wait, then take a snapshot again."
        : null;

    public string? AsBefore()
    {
        // With several drives, "before" this pull has the new ones of the earlier pulls in it.
        if (ticket.Swap.NearMisses is not [.., var miss] || LastWithAll(miss) is not { } before)
            return "There is nothing to compare with; take a snapshot.";
        if (ticket.Latest is not { } latest || latest.TakenAt <= miss.At)
            return TakeOne("since the drive went back");
        var changes = SnapshotComparison.Between(before, latest);
        return changes.Count == 0 ? null : $"Not yet as before: {string.Join(" ", changes.Select(c => c.Sentence))}";
    }

    /// <summary>The last snapshot from before the pull that shows the drive which then came out by mistake: a look between pull and scan does not.</summary>
    private Snapshot? LastWithAll(NearMiss miss)
    {
        var before = ticket.Snapshots.FindAll(s => s.TakenAt <= ticket.Swap.PulledAt);
        return before.FindLast(s => s.Holding(miss.Serial) is not null && s.Holding(_drive?.Serial) is not null) ?? before.LastOrDefault();
    }

    public string? BayEmpty() =>
        Fresh is not { } now ? TakeOne(FreshSince)
        : now.BayLabelled(_drive?.Bay) is not { } bay ? $"The last snapshot has no bay {_drive?.Bay}."
        : bay.Serial is { } there ? $"Bay {bay.Label} holds {there} now; a drive is added in an empty bay only. Stop."
        : null;

    public string? NewDriveSeen()
    {
        if (SinceInsert is not { } now)
            return TakeOne("since the new drive went in");
        var bay = now.BayLabelled(_drive?.Bay);
        var seen = bay?.Serial;
        if (SerialComparison.Between(seen, _swap.InSerial ?? "").Outcome == SerialOutcome.Exact)
            return bay?.Health == DriveHealth.Faulted
                ? $"The machine sees {seen} in bay {bay.Label}, and by its own word it has failed. It is as good as dead on arrival: another part goes in."
                : null;
        return $"The machine sees {seen ?? "nothing"} in bay {_drive?.Bay}, not {_swap.InSerial}. Seat the drive "
            + "again; if that does not help, it is dead on arrival, and another part goes in.";
    }

    public string? NothingForeign() =>
        SinceInsert is not { } now ? TakeOne("since the new drive went in")
        : now.Holding(_swap.InSerial)?.Role == BayRole.Foreign
            ? $"{_swap.InSerial} carries the data of another array. Nothing may start on it before that is cleared."
        : null;

    public string? RebuildSeen()
    {
        var readings = ticket.Readings.Exists(r => r.At > _swap.InsertedAt);
        if (OntoAnother() is { } elsewhere)
            return $"The rebuild runs onto bay {elsewhere.Label}, {elsewhere.Serial}, not onto {_swap.InSerial}. Let it end and take a snapshot; "
                + "if the array is whole without the new drive, another sheet makes that one the spare.";
        var shown = SinceInsert?.Holding(_swap.InSerial)?.Role is BayRole.Filling or BayRole.Member;
        return readings || shown
            ? null
            : "No rebuild onto the new drive has been seen. Look at the machine, or take a snapshot or a reading.";
    }

    /// <summary>The bay that is filled instead of the new drive; null where none is, or where the new one is in use as well.</summary>
    private Bay? OntoAnother() =>
        SinceInsert is { } now && now.Holding(_swap.InSerial)?.Role is not (BayRole.Filling or BayRole.Member)
            ? now.Bays.FirstOrDefault(b => b.Role == BayRole.Filling && b.Array == ArrayOf(now)?.Name)
            : null;

    public string? DriveJoined() =>
        SinceInsert is not { } now ? TakeOne("since the new drive went in")
        : now.Holding(_swap.InSerial) is not { Role: BayRole.Member }
            ? $"{_swap.InSerial} is {(now.Holding(_swap.InSerial) is { } held ? Words.Of(held.Role) : "in no bay")}, not yet a member."
        : ArrayOf(now) is not { } array ? NoArray
        : array.State == ArrayState.Rebuilding ? $"{array.Name} is rebuilding."
        : null;

    public string? ArrayWhole(BayRole newDriveIs)
    {
        if (SinceInsert is not { } now)
            return TakeOne("since the new drive went in");
        if (ArrayOf(now) is not { } array)
            return NoArray;
        if (!now.IsWhole(array))
            return $"{array.Name} is {Words.Of(array.State)} with {now.MembersOf(array)} of {array.DesignMembers} members.";
        var role = now.Holding(_swap.InSerial)?.Role;
        return role == newDriveIs
            ? null
            : $"{array.Name} is whole, but {_swap.InSerial} is {(role is { } other ? Words.Of(other) : "in no bay")}, not {Words.Of(newDriveIs)}.";
    }

    public string? AllNewGood()
    {
        if (ticket.Latest is not { } now || ticket.Swaps.Any(s => s.InSerial is null || now.TakenAt <= s.InsertedAt))
            return TakeOne("since the last new drive went in");
        foreach (var serial in ticket.Swaps.Select(s => s.InSerial))
            if (now.Holding(serial) is not { } bay)
                return $"The machine sees {serial} in no bay.";
            else if (bay is not { Health: DriveHealth.Good, Role: BayRole.Member or BayRole.Spare })
                return $"{serial} in bay {bay.Label} reads {Words.Of(bay.Health)} and is {Words.Of(bay.Role)}; each new drive has to be good and in use.";
        return null;
    }

    public string? SeenAgain() => ticket.Latest is { } now && now.TakenAt >= run.Began ? null : TakeOne("since this sheet began");

    /// <summary>What is whole again is the pattern's own proof; here it is what changed that counts.</summary>
    public string? SnapshotAfter() =>
        Ended()
        ?? (
            ticket is { Before: { } before, After: { } after } && ticket.Swap.Bay is not null
                ? SwappedBays.OtherThanMeant(ticket, before, after)
                : TakeOne("from before the pull")
        );

    private string? Ended() =>
        ticket.Sheet?.ComesBack switch
        {
            ComesBack.ReleasedFirst => AllNewGood(),
            ComesBack.SpareSteppedIn or ComesBack.Added => ArrayWhole(BayRole.Spare),
            _ => ArrayWhole(BayRole.Member),
        };

    /// <summary>The sheet's array; where it names none that is there, the one of the drive, or of the drive that took its place.</summary>
    private DriveArray? ArrayOf(Snapshot now) =>
        now.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array)
        ?? now.ArrayOf(now.Holding(_drive?.Serial))
        ?? now.ArrayOf(now.Holding(_swap.InSerial));

    /// <summary>Nobody goes on past what nobody can see.</summary>
    private string NoArray =>
        $"The last snapshot has nothing of {ticket.Sheet?.Array ?? "the array"}, which this is about. Take one that has, or call a lead.";

    private (Bay? Bay, string? Not) Held(Snapshot now) =>
        now.BayLabelled(_drive?.Bay) is not { } bay ? (null, $"The last snapshot has no bay {_drive?.Bay}.")
        // So far gone that the machine lists it no more; what comes out is held against the sheet all the same.
        : bay.Serial is null && now.Holding(_drive?.Serial) is null ? (bay, null)
        : bay.Serial is null || SerialComparison.Between(bay.Serial, _drive?.Serial ?? "").Outcome != SerialOutcome.Exact
            ? (null, $"Bay {bay.Label} holds {bay.Serial ?? "nothing"} now, not {_drive?.Serial}. Stop: this sheet is for another drive.")
        : (bay, null);

    /// <summary>What was looked at before the last drive was done says nothing of the next one.</summary>
    private Snapshot? Fresh =>
        ticket.Latest is { } latest && latest.TakenAt >= ticket.OnSiteSince && !(latest.TakenAt <= LastDone) ? latest : null;

    private DateTimeOffset? LastDone => ticket.EarlierSwaps.LastOrDefault()?.InsertedAt;

    private string FreshSince => LastDone is null ? "since you arrived" : "since the last drive went in";

    private Snapshot? SinceInsert => ticket.Latest is { } latest && latest.TakenAt > _swap.InsertedAt ? latest : null;

    private static string TakeOne(string since) => $"There is no snapshot {since}; take one.";
}
