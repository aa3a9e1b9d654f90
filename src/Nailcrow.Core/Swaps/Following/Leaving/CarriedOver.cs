using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following.Guarding;
using Nailcrow.Core.Swaps.Gates;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Following.Leaving;

/// <summary>
/// A sheet for what is so now takes the place of one that was made for something else: what was done at steps that both have, and
/// that still holds, is not asked again. The new run stands at the first thing that was not done. So a sheet that was left for
/// another, and is taken up again, goes on where it was left.
/// </summary>
internal static class CarriedOver
{
    /// <param name="runs">The run that is left now, and those of this ticket that were left before it; oldest first.</param>
    /// <param name="pullsAnew">The drive that was out is back in its bay: it is pulled again, under gates that open now.</param>
    public static Run Onto(Ticket ticket, RunSheet sheet, IReadOnlyList<Interrupted> runs, DateTimeOffset at, bool pullsAnew)
    {
        var open = OpenThings.After(runs);
        // What was opened and closed again since is opened anew, and all that comes after it.
        for (var anew = new HashSet<string>(); ; )
        {
            var run = UpTo(Run.Begin(sheet, at), anew, ticket, sheet, runs, pullsAnew);
            if (!pullsAnew && IsOut(runs[^1]) && !IsPastThePull(sheet, run) && AtThePull(sheet, run, runs) is { } pulled)
                run = UpTo(pulled, anew, ticket, sheet, runs, pullsAnew: false);
            var closed = OpenThings.After(new Interrupted(sheet, run)).Except(open).ToList();
            if (run.Visits.FindLast(v => sheet.Step(v.Step)?.OpensThing() is { } thing && closed.Contains(thing)) is not { } opening)
                return run with { Since = at, Began = runs[^1].Run.Began, Shown = runs[^1].Run.Shown };
            anew.Add(opening.Step);
        }
    }

    /// <summary>A drive is out, by what was answered, whether or not it was read yet.</summary>
    public static bool IsOut(Interrupted left) => MonitoredRun.Of(left).IsOut;

    public static bool IsPastThePull(RunSheet sheet, Run run) => run.Visits.Exists(v => sheet.Step(v.Step)?.Records == Records.DrawnOut);

    /// <summary>
    /// The drive is out: what this sheet asks before that is past, and the run stands at the pull that was made. Null where the sheet
    /// has another way to take a drive out.
    /// </summary>
    private static Run? AtThePull(RunSheet sheet, Run run, IReadOnlyList<Interrupted> runs)
    {
        for (var seen = new HashSet<string>(); sheet.Step(run.Current) is { } step && seen.Add(step.Id); )
        {
            var done = Last(runs, step)?.Visit;
            if (step.Records == Records.DrawnOut)
                return done is null ? null : run;
            run =
                done is { } visit && step.Leading(visit.Branch) is not null
                    ? run.After(sheet, step, visit)
                    : PlainPath.After(sheet, run, step) with
                    {
                        Visits = run.Visits, // nobody has done it
                        Limits = run.Limits,
                    };
        }
        return null;
    }

    private static Run UpTo(Run run, HashSet<string> anew, Ticket ticket, RunSheet sheet, IReadOnlyList<Interrupted> runs, bool pullsAnew)
    {
        // Each step at most once: where the new sheet leads back, what follows has to be done anew.
        for (var seen = new HashSet<string>(); sheet.Step(run.Current) is { } step && seen.Add(step.Id); )
        {
            if (anew.Contains(step.Id) || Last(runs, step) is not var (old, done, visit))
                break;
            // A pull on a sheet that was left earlier was over, or the drive is back, where the last one knows nothing of it.
            if (step.Records == Records.DrawnOut && (pullsAnew || !ReferenceEquals(done, runs[^1].Run)))
                break;
            if (step.Id == runs[^1].Run.Current)
                break; // it stands there: what was answered before was taken back, or has to be answered anew
            if (step.Against == ScanTarget.Chassis && sheet.ChassisSerial != old.ChassisSerial)
                break; // it was put right which machine it is
            // A gate opened on what was so then; it stays open where it would open now.
            // What it guarded may be done by now: then it guards nothing more.
            if (
                step.Gate is not null
                && visit.Branch == RunStep.Done
                && !IsOver(ticket, old, done, visit)
                && GateCheck.Unmet(ticket, run, step) is not null
            )
                break;
            if (step.Leading(visit.Branch) is null)
                break;
            run = run.After(sheet, step, visit);
        }
        return run;
    }

    /// <summary>The last time that this very step was answered, on whichever sheet.</summary>
    private static (RunSheet Sheet, Run Run, Visit Visit)? Last(IReadOnlyList<Interrupted> runs, RunStep step) =>
        runs.Where(r => IsSame(r.Sheet.Step(step.Id), step))
            .Select(r => (r.Sheet, r.Run, Visit: r.Run.Visits.FindLast(v => v.Step == step.Id)))
            .Where(found => found.Visit is not null)
            .OrderBy(found => found.Visit!.At) // filtered just above
            .Select(found => ((RunSheet, Run, Visit)?)(found.Sheet, found.Run, found.Visit!))
            .LastOrDefault();

    /// <summary>The right drive is out, and was taken after the gate was passed; a wrong one that went back leaves the pull to come.</summary>
    private static bool IsOver(Ticket ticket, RunSheet old, Run done, Visit gate) =>
        ticket.Swap.OutSerial is not null
        && done.Visits.Skip(done.Visits.FindLastIndex(v => ReferenceEquals(v, gate)) + 1)
            .Any(v => old.Step(v.Step)?.Records is Records.DrawnOut or Records.Inserted);

    private static bool IsSame(RunStep? was, RunStep now) =>
        was is not null
        && was.Kind == now.Kind
        && was.Say == now.Say
        && was.Records == now.Records
        && was.Gate == now.Gate
        && was.Against == now.Against;
}
