using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps.Following;

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
        var seen = new Recorded();
        foreach (var visit in run.Visits)
            if (sheet.Step(visit.Step) is { } visited)
                seen.Take(visited, visit);
        seen.ComeTo(step);
        return Broken(seen, step) ?? (step.Records == Records.DrawnOut ? Stale(ticket, sheet, step, seen, now) : null);
    }

    private static string? Broken(Recorded seen, RunStep step) =>
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
                Records.Unseated => !seen.IsIn ? "no new drive has gone into this bay."
                : seen.IsServing ? "the machine has seen the new drive and may use it; this is a pull like any other."
                : null,
                Records.CarrierOff when seen is { IsOut: true, IsCompared: false } =>
                    "the serial of the drive that came out has not been compared.",
                Records.Inserted or Records.Reseated => !seen.IsOut ? "no drive has come out of this bay."
                : !seen.IsCompared ? "the serial of the drive that came out has not been compared."
                : !seen.HasWaited ? "nobody has waited since the drive came out."
                : null,
                _ => null,
            };

    private static string? Stale(Ticket ticket, RunSheet sheet, RunStep step, Recorded seen, DateTimeOffset now)
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

    /// <summary>What the visits so far put on record, of the drive that is worked on.</summary>
    private sealed class Recorded
    {
        // What a procedure says is open while the machine is switched off.
        private const string Power = "power";

        private readonly HashSet<string> _machine = [];
        private readonly HashSet<string> _bay = [];
        private bool _machineIsSaid;
        private bool _bayIsSaid;
        private int? _drive;

        public DateTimeOffset? NotRebuilding { get; private set; }
        public DateTimeOffset? NotFatal { get; private set; }
        public bool IsOut { get; private set; }
        public bool WrongIsOut { get; private set; }
        public bool IsCompared { get; private set; }
        public bool HasWaited { get; private set; }
        public bool IsOff { get; private set; }
        public bool IsIn { get; private set; }
        public bool IsServing { get; private set; }

        /// <summary>How many independent marks there are; two where a lead has said it is so.</summary>
        public int Machine => _machineIsSaid ? 2 : _machine.Count;

        public int Bay => _bayIsSaid ? 2 : _bay.Count;

        public void ComeTo(RunStep step)
        {
            if (step.Drive is { } drive && drive != _drive)
            {
                if (_drive is not null)
                    ForgetThePlace();
                _drive = drive;
            }
        }

        public void Take(RunStep step, Visit visit)
        {
            ComeTo(step);
            if (visit.Branch is RunStep.Done or "yes" or "exact" || visit.Overruled)
                Done(step, visit);
            else if (step.Against == ScanTarget.DriveOut && visit.Branch == "different")
                (IsOut, WrongIsOut) = (true, true);
        }

        private void Done(RunStep step, Visit visit)
        {
            Gate(step, visit);
            if (step.AllowsPull)
                (NotRebuilding, NotFatal) = (visit.At, visit.At);
            if (step.Kind == StepKind.Hold && IsOut)
                HasWaited = true;
            if (step.Against == ScanTarget.DriveOut)
                IsCompared = true;
            IsOff = step.Opens == Power || (IsOff && step.Closes != Power);
            switch (step.Records)
            {
                case Records.ChassisMark:
                    _machine.Add(Marks.SourceOf(Records.ChassisMark, step.Mark ?? step.Id));
                    break;
                case Records.BayMark:
                    _bay.Add(Marks.SourceOf(Records.BayMark, step.Mark ?? step.Id));
                    break;
                case Records.DrawnOut:
                    ForgetThePlace();
                    (IsOut, IsCompared, HasWaited, IsIn, IsServing) = (true, false, false, false, false);
                    break;
                case Records.Unseated:
                    (IsOut, IsCompared, HasWaited, IsIn) = (true, true, false, false);
                    break;
                case Records.PutBack:
                    ForgetThePlace();
                    (IsOut, WrongIsOut) = (false, false);
                    break;
                case Records.Inserted or Records.Reseated:
                    (IsOut, IsIn) = (false, true);
                    break;
            }
        }

        private void Gate(RunStep step, Visit visit)
        {
            if (step.Gate is GateFact.NotRebuilding or GateFact.Released or GateFact.AsBefore)
                NotRebuilding = visit.At;
            if (step.Gate is GateFact.PullNotFatal or GateFact.AsBefore)
                NotFatal = visit.At;
            IsServing |= step.Gate is GateFact.NewDriveSeen or GateFact.RebuildSeen;
            _machineIsSaid |= step.Gate == GateFact.ChassisEstablished && visit.Overruled;
            _bayIsSaid |= step.Gate == GateFact.BayEstablished && visit.Overruled;
        }

        /// <summary>The next pull has to establish anew which bay it is, and that the array can spare its drive.</summary>
        private void ForgetThePlace()
        {
            _bay.Clear();
            (_bayIsSaid, NotRebuilding, NotFatal) = (false, null, null);
        }
    }
}
