using Nailcrow.Core.Appliances;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following.Guarding;
using Nailcrow.Core.Swaps.Gates;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following;

/// <summary>A sheet followed without a machine: nothing is recorded, gates open when one says so, clocks do not run.</summary>
public sealed class DryRun
{
    private Ticket _ticket;
    private DateTimeOffset _now = DateTimeOffset.UnixEpoch;

    public DryRun(RunSheet sheet) =>
        _ticket = new Ticket(0)
        {
            Sheet = sheet,
            Run = Run.Begin(sheet, _now),
            // A wrong drive is one that somebody knows; anything else would be asked again.
            Snapshots = [new(_now, "", [new("elsewhere", BayRole.Unclaimed, Serial: AnotherDrive)], [])],
        };

    private const string AnotherDrive = "OTHER99999";

    public RunStep? Current => Sheet.Step(Run.Current);

    public bool HandedOver => Run.HandedOver;

    public IReadOnlyList<Visit> Visits => Run.Visits;

    /// <summary>Why the current step would be stopped by what was answered so far; null where it would not.</summary>
    public string? Stop => RunMonitor.Stop(_ticket, _now);

    /// <summary>What the answers so far leave a gate without that asks for nothing but answers; null where it would open, or asks for more.</summary>
    public string? Unmet =>
        Current is { Gate: GateFact.ChassisEstablished or GateFact.BayEstablished or GateFact.BackupAsked or GateFact.LightOff } gate
            ? GateCheck.Unmet(_ticket, Run, gate)
            : null;

    private RunSheet Sheet => _ticket.Sheet!; // set by the constructor, never taken away

    private Run Run => _ticket.Run!; // likewise

    /// <summary>Every answer that leads somewhere from here; a scan by how its serial compares.</summary>
    public IReadOnlyList<string> Choices => [.. Current?.Answers.Select(a => a.Answer) ?? []];

    /// <summary>What a person would type to give one of the choices: the serial for a scan, bay and serial where something is erased.</summary>
    public string Typed(string choice) =>
        Current switch
        {
            { Kind: StepKind.Scan } step => choice == "exact" ? Stepping.Expected(_ticket, Sheet, step) ?? "SOME0000" : AnotherDrive,
            { Erases: true } step when choice == RunStep.Done => $"{Sheet.DriveOf(step).Bay} {Stepping.Expected(_ticket, Sheet, step)}",
            { Kind: StepKind.Read } step when choice == RunStep.Done => step.Unit is null
                ? "said so"
                : $"{step.AtMost ?? step.AtLeast ?? 1} {step.Unit}",
            _ => choice,
        };

    /// <summary>Answers the current step and goes on; what was said to it, if anything.</summary>
    public string? Answer(string typed)
    {
        if (Current is not { } step)
            return "The sheet is at its end.";
        _now = _now.AddSeconds(1);
        var stamp = new Stamp(Guid.Empty, _now, _now, "somebody", 0);
        _ticket =
            step.IsPassed && typed == RunStep.Done
                ? Stepping.Visited(_ticket, Sheet, Run, step, new(step.Id, typed, typed, null, _now, stamp.By))
                : Stepping.Answer(_ticket, Sheet, Run, step, typed, stamp);
        return Run.Visits.Count > 0 ? Run.Visits[^1].Said : null;
    }
}
