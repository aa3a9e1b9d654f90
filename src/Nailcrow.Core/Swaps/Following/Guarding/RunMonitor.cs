using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Following.Guarding;

/// <summary>
/// The safety rules held against what a run really recorded, at the step it has come to. A procedure is proved before it is used; this
/// shares nothing with the proof, so that a hole in one is no hole in the other. Where a rule would break, the run stops and a lead is called.
/// </summary>
public static class RunMonitor
{
    /// <summary>What was seen of the array longer ago than this says nothing of what it can spare now; a fresh look does.</summary>
    private static readonly TimeSpan StaleAfter = TimeSpan.FromMinutes(30);

    /// <summary>Why the current step must not be done; null where it may be, or where a lead has let it go on in writing since.</summary>
    public static string? Stop(Ticket ticket, DateTimeOffset now)
    {
        if (ticket is not { Sheet: { } sheet, Run: { Current: { } current } run } || sheet.Step(current) is not { } step)
            return null;
        if (ticket.Help is { GoAhead: true } help && help.At >= run.Since)
            return null;
        var seen = MonitoredRun.Of(new(sheet, run));
        seen.ComeTo(step);
        return Broken(seen, step)
            ?? InUse(ticket, step)
            ?? AtTheEnd(seen, sheet, step)
            ?? (step.Records == Records.DrawnOut ? Stale(ticket, sheet, step, seen, now) ?? Any(ticket, sheet, seen) : null);
    }

    /// <summary>Whatever was answered: a drive that the last look shows in use is not taken out again as one that is none.</summary>
    private static string? InUse(Ticket ticket, RunStep step) =>
        step.Records is Records.Unseated or Records.Withdrawn
        && ticket.Latest is { } now
        && now.TakenAt > ticket.Swap.InsertedAt
        && now.Holding(ticket.Swap.InSerial) is { Role: BayRole.Member or BayRole.Filling } bay
            ? $"the machine uses {ticket.Swap.InSerial} in bay {bay.Label}; this is a pull like any other."
            : null;

    private static string? Broken(MonitoredRun seen, RunStep step) =>
        seen.WrongIsOut && step.Records != Records.PutBack && step.Kind != StepKind.Call
            ? "a wrong drive is out, and this does something else than put it back."
            : step.Records switch
            {
                Records.DrawnOut => seen.IsOut ? "another drive is out already."
                : seen.NotRebuilding is null ? "nobody has seen that the array does not rebuild."
                : seen.NotFatal is null ? "nobody has seen that the array can spare this drive, and no lead has let it go."
                : seen.Machine < 2 ? "the machine is not known by two independent marks."
                : seen.Bay < 2 ? "the bay is not known by two independent marks."
                : null,
                Records.Unseated or Records.Withdrawn => !seen.IsIn ? "no new drive has gone into this bay."
                : seen.IsServing ? "the machine has seen the new drive and may use it; this is a pull like any other."
                : null,
                Records.CarrierOff when seen is { IsOut: true, IsCompared: false } =>
                    "the serial of the drive that came out has not been compared.",
                Records.Inserted or Records.Reseated => !seen.IsOut ? "no drive has come out of this bay."
                : !seen.IsCompared ? "the serial of the drive that came out has not been compared."
                : !seen.HasWaited ? "nobody has waited since the drive came out."
                : seen.Machine < 2 && seen.WasEmpty ? "the machine is not known by two independent marks."
                : seen.Bay < 2 && seen.WasEmpty ? "the bay is not known by two independent marks."
                : null,
                _ => null,
            };

    /// <summary>What is missing where there is nothing after this step: something that is open, or the proof that redundancy is back.</summary>
    private static string? AtTheEnd(MonitoredRun seen, RunSheet sheet, RunStep step)
    {
        var onward = step.Answers.Where(a => a.Answer != RunStep.NotSo).ToList();
        var handsOver = onward.Count > 0 && onward.TrueForAll(a => a.Next == StepAnswer.HandOver);
        if (onward.Count == 0 || !(handsOver || onward.TrueForAll(a => a.Next is null)))
            return null;
        if (seen.Open.Where(thing => thing != step.Closes).ToList() is { Count: > 0 } open)
            return $"{string.Join(" and ", open)} {(open.Count == 1 ? "is" : "are")} not put right.";
        return
            !handsOver
            && Proofs(sheet.ComesBack, seen.IsIn).FirstOrDefault(p => !p.Exists(g => g == step.Gate || seen.HasPassed(g))) is [var gate, ..]
            ? $"the end was not proved: no gate '{Terms.Words.Of(gate)}' has opened."
            : null;
    }

    /// <summary>The gates that have to have opened before the end, by how redundancy comes back; of several in one place, any.</summary>
    private static List<GateFact>[] Proofs(ComesBack comesBack, bool isIn) =>
        comesBack switch
        {
            ComesBack.ByRebuild =>
            [
                [GateFact.RebuildSeen],
                [GateFact.ArrayWhole],
                [GateFact.SnapshotAfter],
            ],
            ComesBack.SpareSteppedIn or ComesBack.Added =>
            [
                [GateFact.SpareBack],
                [GateFact.SnapshotAfter],
            ],
            ComesBack.ReleasedFirst =>
            [
                [GateFact.AllNewGood],
                [GateFact.SnapshotAfter],
            ],
            ComesBack.Cannot when isIn =>
            [
                [GateFact.SeenAgain],
                [GateFact.AllNewGood],
            ],
            ComesBack.Cannot =>
            [
                [GateFact.SeenAgain],
            ],
            _ =>
            [
                [GateFact.AsBefore, GateFact.SeenAgain],
            ],
        };

    /// <summary>Where nobody knows which drive will come out, the array has to be able to spare each.</summary>
    private static string? Any(Ticket ticket, RunSheet sheet, MonitoredRun seen) =>
        seen is { BayIsSaid: true, IsOff: false } && sheet.ComesBack != ComesBack.Cannot ? TrialPull.NotSpared(ticket, sheet) : null;

    private static string? Stale(Ticket ticket, RunSheet sheet, RunStep step, MonitoredRun seen, DateTimeOffset now)
    {
        var since = seen.NotRebuilding < seen.NotFatal ? seen.NotRebuilding : seen.NotFatal;
        // A machine that is switched off neither rebuilds nor answers.
        if (now - since <= StaleAfter || seen.IsOff || sheet.ComesBack == ComesBack.Cannot)
            return null;
        return
            ticket.Latest is { } latest
            && now - latest.TakenAt <= StaleAfter
            && latest.BayLabelled(sheet.DriveOf(step).Bay) is { } bay
            && latest.ArrayOf(bay)?.State != ArrayState.Rebuilding
            && !BayVerdict.For(latest, bay).NeedsALead()
            ? null
            : $"the array was looked at {Rebuilds.Watch.Told(now - (since ?? now))} ago. Take a snapshot now.";
    }
}
