using System.Numerics;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Proof;

/// <summary>What a step makes of a situation, and whether a gate can open in it.</summary>
internal static class Effects
{
    /// <summary>False where no machine and no person could make the gate's fact so in this situation.</summary>
    public static bool CanPass(Node node, Situation now, string? rebuildStart) =>
        node.Step.Step.Gate switch
        {
            GateFact.BackupAsked => now.Has(Known.BackupAsked),
            GateFact.ChassisEstablished => now.Has(Known.Machine) || Two(now.MachineMarks),
            GateFact.BayEstablished => !now.Has(Known.NoMarkLeft) && (now.Has(Known.Bay) || Two(now.BayMarks)),
            GateFact.PullNotFatal or GateFact.Released or GateFact.WholeBefore => !now.Has(Known.DriveOut),
            GateFact.AsBefore => now.Has(Known.WentBack),
            GateFact.BayEmpty => !now.Has(Known.NewIn),
            GateFact.LightOff => (now.Open & node.LightBit) == 0,
            GateFact.RebuildSeen => now.Has(Known.NewIn) && (rebuildStart != Words.Of(RebuildStart.ByHand) || now.Has(Known.Started)),
            GateFact.Restored => now.Has(Known.Restored),
            GateFact.NewDriveSeen
            or GateFact.NothingForeign
            or GateFact.DriveJoined
            or GateFact.ArrayWhole
            or GateFact.SpareBack
            or GateFact.AllNewGood
            or GateFact.SnapshotAfter => now.Has(Known.NewIn),
            _ => true,
        };

    public static Situation Of(Node node, string answer, Situation now)
    {
        var step = node.Step.Step;
        now = AsksForAPull(step, answer) ? now.With(Known.AskedAtGate) : now.Without(Known.AskedAtGate);
        if (step.Records == Records.Backup)
            now = now.With(Known.BackupAsked);
        if (step.Against == ScanTarget.DriveOut)
            now = Compared(answer, now);
        return answer is RunStep.Done or "yes" or "exact" ? Affirmed(node, now) : Denied(step, now);
    }

    /// <summary>What the machine does not see, or calls another array's, it does not use.</summary>
    private static Situation Denied(RunStep step, Situation now) =>
        step.Gate is GateFact.NewDriveSeen or GateFact.NothingForeign ? now.Without(Known.NewSeen) : now;

    /// <summary>The way out of a gate that says no to the pull: where it leads to a call, the lead is asked about exactly that.</summary>
    private static bool AsksForAPull(RunStep step, string answer) =>
        step.Gate is GateFact.NotRebuilding or GateFact.PullNotFatal or GateFact.WholeBefore && answer != RunStep.Done;

    private static Situation Compared(string answer, Situation now) =>
        answer switch
        {
            "exact" => now.With(Known.RightDrive),
            "different" => now.With(Known.WrongDrive),
            _ => now,
        };

    private static Situation Affirmed(Node node, Situation now)
    {
        var step = node.Step.Step;
        now = now with { Open = (now.Open | node.Opens) & ~node.Closes };
        if (step.Kind == StepKind.Hold && !now.Has(Known.DriveOut) && (step.Seconds ?? 0) > StaleAfter)
            now = now.Without(Known.NotRebuilding | Known.NotFatal | Known.GoAhead | Known.AsBefore);
        if (step.Kind == StepKind.Hold && node.Step.SecondsFrom == ModelProperties.WaitAfterPull && now.Has(Known.DriveOut))
            now = now.With(Known.Waited);
        if (step.AllowsPull)
            now = now.With(Known.GoAhead | Known.NotRebuilding | Known.NotFatal); // it stands for both from here on
        return Recorded(node, Passed(step.Gate, now));
    }

    // What was seen of an array so long ago, in seconds, says nothing of what it can spare now.
    private const int StaleAfter = 600;

    private static bool Two(uint marks) => BitOperations.PopCount(marks) >= 2;

    private static uint Marked(uint marks, uint mark) => Two(marks) ? marks : marks | mark;

    private static Situation Recorded(Node node, Situation now) =>
        node.Step.Step.Records switch
        {
            Records.ChassisMark => now.Has(Known.Machine) ? now : now with { MachineMarks = Marked(now.MachineMarks, node.Mark) },
            Records.BayMark => (now.Has(Known.Bay) ? now : now with { BayMarks = Marked(now.BayMarks, node.Mark) }).Without(
                Marks.IsWithALead(node.Step.Step.Mark ?? "") ? Known.NoMarkLeft : Known.Nothing
            ),
            Records.DrawnOut => now.Without(Known.UsedByPull | Known.NewIn | Known.NewSeen | Known.RightDrive).With(Known.DriveOut),
            Records.Unseated or Records.Withdrawn => now.Without(Known.NewIn | Known.Waited).With(Known.DriveOut | Known.RightDrive),
            Records.PutBack => now.Without(Known.DriveOut | Known.WrongDrive).With(Known.WentBack) with { BayMarks = 0 },
            Records.Inserted or Records.Reseated => now.Without(Known.DriveOut | Known.RightDrive).With(Known.NewIn),
            Records.RebuildStarted => now.With(Known.Started),
            Records.Restored => now.With(Known.Restored),
            _ => now,
        };

    private static Situation Passed(GateFact? gate, Situation now) =>
        gate switch
        {
            GateFact.SnapshotBefore => now.With(Known.SnapshotBefore),
            GateFact.NotRebuilding => now.With(Known.NotRebuilding),
            GateFact.PullNotFatal => now.With(Known.NotFatal),
            GateFact.Released => now.With(Known.Released),
            GateFact.ChassisEstablished => now.With(Known.Machine) with { MachineMarks = 0 },
            GateFact.BayEstablished => now.With(Known.Bay) with { BayMarks = 0 },
            // A machine that is as it was before the pull does not rebuild, and can spare what it could spare then.
            GateFact.AsBefore => now.With(Known.AsBefore | Known.NotRebuilding | Known.NotFatal),
            // Nothing is in it that has to be compared, or waited for.
            GateFact.BayEmpty => now.With(Known.DriveOut | Known.RightDrive | Known.Waited),
            GateFact.NewDriveSeen => now.With(Known.NewSeen),
            GateFact.RebuildSeen => now.With(Known.RebuildSeen),
            GateFact.ArrayWhole => now.With(Known.Whole),
            GateFact.SpareBack => now.With(Known.SpareBack),
            GateFact.AllNewGood => now.With(Known.AllGood),
            GateFact.SeenAgain => now.With(Known.SeenAgain),
            GateFact.SnapshotAfter => now.With(Known.SnapshotAfter),
            _ => now,
        };
}
