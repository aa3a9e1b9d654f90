using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following.Leaving;

namespace Nailcrow.Core.Swaps.Following.Guarding;

/// <summary>What the visits so far put on record, of the drive that is worked on.</summary>
internal sealed class MonitoredRun
{
    // What a procedure says is open while the machine is switched off.
    private const string Power = RunStep.Power;

    private readonly int? _wait;
    private readonly HashSet<string> _machine = [];
    private readonly HashSet<string> _bay = [];
    private bool _machineIsSaid;
    private bool _bayIsSaid;
    private int? _drive;
    private readonly HashSet<string> _open = [];
    private readonly HashSet<GateFact> _passed = [];

    /// <param name="sheet">Tells how long its model wants a bay to be empty, where it was made since sheets know that.</param>
    public MonitoredRun(RunSheet sheet) => _wait = sheet.WaitSeconds;

    /// <summary>A run as far as it was followed.</summary>
    public static MonitoredRun Of(Interrupted followed)
    {
        var seen = new MonitoredRun(followed.Sheet);
        foreach (var visit in followed.Run.Visits)
            if (followed.Sheet.Step(visit.Step) is { } step)
                seen.Take(step, visit);
        return seen;
    }

    /// <summary>What was opened, switched on or slid out, and not put right yet.</summary>
    public IReadOnlyCollection<string> Open => _open;

    public bool HasPassed(GateFact gate) => _passed.Contains(gate);

    public DateTimeOffset? NotRebuilding { get; private set; }
    public DateTimeOffset? NotFatal { get; private set; }
    public bool IsOut { get; private set; }
    public bool WrongIsOut { get; private set; }
    public bool IsCompared { get; private set; }
    public bool HasWaited { get; private set; }

    /// <summary>Nothing came out of the bay: it was seen to be empty.</summary>
    public bool WasEmpty { get; private set; }
    public bool IsOff => _open.Contains(Power);
    public bool IsIn { get; private set; }
    public bool IsServing { get; private set; }

    /// <summary>How many independent marks there are; two where a lead has said it is so.</summary>
    public int Machine => _machineIsSaid ? 2 : _machine.Count;

    /// <summary>No two marks say which bay it is, and a lead has let it go on in writing.</summary>
    public bool BayIsSaid => _bayIsSaid;

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
        else if (step.Gate is GateFact.NewDriveSeen or GateFact.NothingForeign)
            IsServing = false; // the machine does not see it, or takes it for another array's
        else if (step.Against == ScanTarget.DriveOut && visit.Branch == "different")
            (IsOut, WrongIsOut) = (true, true);
    }

    private void Done(RunStep step, Visit visit)
    {
        Gate(step, visit);
        if (step.AllowsPull)
            (NotRebuilding, NotFatal) = (visit.At, visit.At);
        if (step.Kind == StepKind.Hold && IsOut && (_wait is null || step.Seconds >= _wait))
            HasWaited = true;
        if (step.Against == ScanTarget.DriveOut)
            IsCompared = true;
        Things(step);
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
            case Records.Unseated or Records.Withdrawn:
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

    private void Things(RunStep step)
    {
        if (step.OpensThing() is { } opened)
            _open.Add(opened);
        if (step.ClosesThing() is { } closed)
            _open.Remove(closed);
    }

    private void Gate(RunStep step, Visit visit)
    {
        if (step.Gate is { } gate)
            _passed.Add(gate);
        if (step.Gate is GateFact.NotRebuilding or GateFact.Released or GateFact.AsBefore)
            NotRebuilding = visit.At;
        if (step.Gate is GateFact.PullNotFatal or GateFact.AsBefore)
            NotFatal = visit.At;
        if (step.Gate == GateFact.BayEmpty)
            (WasEmpty, IsOut, IsCompared, HasWaited) = (true, true, true, true);
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
