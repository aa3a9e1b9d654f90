using System.Collections.Immutable;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps;

/// <summary>Whether a run may go on past a gate, a hold or a call: null, or what is missing and what to do about it.</summary>
public static class GateCheck
{
    public static string? Unmet(Ticket ticket, Run run, RunStep step, DateTimeOffset now) =>
        step switch
        {
            { Kind: StepKind.Hold, Seconds: { } seconds } => Hold(run.Since.AddSeconds(seconds) - now),
            { Kind: StepKind.Call } => Call(ticket.Help, run.Since),
            { Gate: { } fact } => Unmet(ticket, fact),
            _ => null,
        };

    /// <summary>The facts a gate can ask for. One arm each; what a fact means is said by the method it calls.</summary>
    public static string? Unmet(Ticket ticket, GateFact fact) =>
        fact switch
        {
            GateFact.PartInHand => ticket.Part?.IssuedTo is null ? "No replacement has been issued for this ticket; stores reserves and issues one." : null,
            GateFact.BackupAsked => ticket.Backup is null ? "Nobody has said whether there is a backup; ask, and write down who says so." : null,
            GateFact.SnapshotBefore => Fresh(ticket) is null ? TakeOne("since you arrived") : null,
            GateFact.NotRebuilding => NotRebuilding(ticket),
            GateFact.PullNotFatal => PullNotFatal(ticket),
            GateFact.ChassisEstablished => TwoMarks(ticket.Swap.ChassisMarks, 0, "machine"),
            GateFact.BayEstablished => TwoMarks(ticket.Swap.BayMarks, ticket.Swap.Attempt, "bay"),
            GateFact.AsBefore => AsBefore(ticket),
            GateFact.NewDriveSeen => NewDriveSeen(ticket),
            GateFact.LightOff => ticket.LocatorOn ? "The locator light is on; switch it off." : null,
            GateFact.RebuildSeen => RebuildSeen(ticket),
            GateFact.ArrayWhole => ArrayWhole(ticket),
            GateFact.SnapshotAfter => SnapshotAfter(ticket),
            _ => throw new ArgumentOutOfRangeException(nameof(fact), fact, "No rule for this gate."),
        };

    private static string? Hold(TimeSpan left) => left > TimeSpan.Zero ? $"Wait {Watch.Told(left)} more." : null;

    private static string? Call(HelpCall? help, DateTimeOffset since) =>
        help is null || help.At < since ? "Call for help, and say what you see."
        : help.IsOpen ? "Waiting for a lead's answer. Pull nothing meanwhile."
        : help.GoAhead == true ? null
        : $"{help.AnsweredBy} refused: {help.Answer}";

    private static string? NotRebuilding(Ticket ticket) =>
        Fresh(ticket) is not { } now ? TakeOne("since you arrived")
        : Target(ticket, now) is { State: ArrayState.Rebuilding } array ? $"{array.Name} is rebuilding. Wait until it has ended, then take a snapshot again."
        : null;

    private static string? PullNotFatal(Ticket ticket) =>
        Fresh(ticket) is not { } now ? TakeOne("since you arrived")
        : now.BayLabelled(ticket.Sheet?.TargetBay) is not { } bay ? $"The last snapshot has no bay {ticket.Sheet?.TargetBay}."
        : bay.Serial is null || SerialComparison.Between(bay.Serial, ticket.Sheet?.TargetSerial ?? "").Outcome != SerialOutcome.Exact
            ? $"Bay {bay.Label} holds {bay.Serial ?? "nothing"} now, not {ticket.Sheet?.TargetSerial}. Stop: this sheet is for another drive."
        : BayVerdict.For(now, bay) is { Verdict: PullVerdict.Fatal } verdict ? $"Pulling bay {bay.Label} is fatal: {verdict.Reason} Only a lead may let this go on."
        : null;

    /// <summary>Two different marks in this attempt, one of which the attempt that went wrong did not go by.</summary>
    private static string? TwoMarks(ImmutableList<MarkSeen> seen, int attempt, string what)
    {
        var now = seen.Where(m => m.Attempt == attempt).Select(m => m.Mark).Distinct().ToList();
        if (now.Count < 2)
            return $"The {what} is known by {(now.Count == 0 ? "no mark" : $"'{now[0]}' only")}; two independent marks have to agree.";
        var last = seen.Where(m => m.Attempt == attempt - 1).Select(m => m.Mark).ToList();
        return last.Count > 0 && !now.Except(last).Any()
            ? $"The same marks ({string.Join(", ", now)}) led to the wrong drive; find another one, or call for help."
            : null;
    }

    private static string? AsBefore(Ticket ticket)
    {
        if (ticket is not { Before: { } before, Swap.NearMisses: [.., var miss] })
            return "There is nothing to compare with; take a snapshot.";
        if (ticket.Latest is not { } latest || latest.TakenAt <= miss.At)
            return TakeOne("since the drive went back");
        var changes = SnapshotComparison.Between(before, latest);
        return changes.Count == 0 ? null : $"Not yet as before: {string.Join(" ", changes.Select(c => c.Sentence))}";
    }

    private static string? NewDriveSeen(Ticket ticket)
    {
        if (SinceInsert(ticket) is not { } now)
            return TakeOne("since the new drive went in");
        var seen = now.BayLabelled(ticket.Sheet?.TargetBay)?.Serial;
        return SerialComparison.Between(seen, ticket.Swap.InSerial ?? "").Outcome == SerialOutcome.Exact
            ? null
            : $"The machine sees {seen ?? "nothing"} in bay {ticket.Sheet?.TargetBay}, not {ticket.Swap.InSerial}. Seat the drive again; if that does not help, it is dead on arrival: call.";
    }

    private static string? RebuildSeen(Ticket ticket)
    {
        var readings = ticket.Readings.Exists(r => r.At > ticket.Swap.InsertedAt);
        var shown = SinceInsert(ticket)?.Holding(ticket.Swap.InSerial)?.Role is BayRole.Filling or BayRole.Member;
        return readings || shown ? null : "No rebuild onto the new drive has been seen. Look at the machine, or take a snapshot or a reading.";
    }

    private static string? ArrayWhole(Ticket ticket)
    {
        if (SinceInsert(ticket) is not { } now)
            return TakeOne("since the new drive went in");
        if (now.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array) is not { } array)
            return $"The last snapshot does not show {ticket.Sheet?.Array}.";
        return now.IsWhole(array) && now.Holding(ticket.Swap.InSerial)?.Role == BayRole.Member
            ? null
            : $"{array.Name} is {Words.Of(array.State)} with {now.MembersOf(array)} of {array.DesignMembers} members.";
    }

    private static string? SnapshotAfter(Ticket ticket) =>
        ArrayWhole(ticket) ?? (ticket is { Before: { } before, After: { } after, Swap.Bay: { } bay } ? SnapshotComparison.OtherThanOnly(bay, before, after) : TakeOne("from before the pull"));

    private static DriveArray? Target(Ticket ticket, Snapshot now) => now.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array);

    private static Snapshot? Fresh(Ticket ticket) => ticket.Latest is { } latest && latest.TakenAt >= ticket.ArrivedAt ? latest : null;

    private static Snapshot? SinceInsert(Ticket ticket) => ticket.Latest is { } latest && latest.TakenAt > ticket.Swap.InsertedAt ? latest : null;

    private static string TakeOne(string since) => $"There is no snapshot {since}; take one.";
}
