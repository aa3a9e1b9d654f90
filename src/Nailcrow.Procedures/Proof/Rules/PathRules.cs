using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Proof.Rules;

/// <summary>The rules that depend on what led to a step: each is a sentence, or null where it holds.</summary>
internal static class PathRules
{
    /// <summary>Everything that doing the step in this situation breaks.</summary>
    public static IEnumerable<(SafetyRule Rule, string Sentence)> At(Node node, Situation now, string? swap, ComesBack pattern)
    {
        var step = node.Step.Step;
        if (now.Has(Known.WrongDrive) && step.Records != Records.PutBack && step.Kind != StepKind.Call)
            yield return (SafetyRule.SerialIsCompared, $"A wrong drive is out, and '{step.Id}' does something else than put it back.");
        foreach (
            var broken in step.Records switch
            {
                Records.DrawnOut => Pull(node, now, swap),
                Records.Unseated or Records.Withdrawn => Unseat(step, now),
                Records.CarrierOff => CarrierOff(step, now),
                Records.Inserted when pattern == ComesBack.Added => Insert(step, now).Concat(Place(step, now)),
                Records.Inserted or Records.Reseated => Insert(step, now),
                Records.PutBack when !now.Has(Known.WrongDrive) =>
                [
                    (SafetyRule.Order, $"'{step.Id}' puts back a wrong drive, and none is out."),
                ],
                Records.RebuildStarted when now.Has(Known.DriveOut) =>
                [
                    (SafetyRule.Order, $"'{step.Id}' starts a rebuild while the bay is empty."),
                ],
                _ => [],
            }
        )
            yield return broken;
        if (step.AllowsPull && !now.Has(Known.AskedAtGate))
            yield return (
                SafetyRule.PullIsAllowed,
                $"'{step.Id}' allows a pull and is reached from elsewhere than a gate that is shut against it; lead to it from "
                    + "'not-rebuilding', 'pull-not-fatal' or 'whole-before' only."
            );
        if (step.Against == ScanTarget.DriveOut && !now.Has(Known.DriveOut))
            yield return (SafetyRule.Order, $"'{step.Id}' reads the serial of a drive that came out, and none is out.");
    }

    /// <summary>What doing the step does to things that are not as it takes them to be.</summary>
    public static IEnumerable<(SafetyRule Rule, string Sentence)> OfThings(Node node, Situation now)
    {
        if (node.Closes != 0 && (now.Open & node.Closes) == 0)
            yield return (SafetyRule.Order, $"'{node.Step.Id}' puts {node.Thing} right, which is not open, on or out here.");
        if (node.Opens != 0 && (now.Open & node.Opens) != 0)
            yield return (SafetyRule.Order, $"'{node.Step.Id}' opens, switches on or slides out {node.Thing} a second time.");
    }

    private static IEnumerable<(SafetyRule, string)> Pull(Node node, Situation now, string? swap)
    {
        var id = node.Step.Id;
        if (!now.Has(Known.GoAhead) && !now.Has(Known.NotRebuilding) && !now.Has(Known.Released))
            yield return (SafetyRule.PullIsAllowed, $"'{id}' pulls a drive and nobody has seen that the array is not rebuilding.");
        if (!now.Has(Known.GoAhead) && !now.Has(Known.NotFatal))
            yield return (
                SafetyRule.PullIsAllowed,
                $"'{id}' pulls a drive that the array may not be able to spare, without a lead's go-ahead."
            );
        if (!now.Has(Known.Machine))
            yield return (SafetyRule.PlaceIsKnown, $"'{id}' pulls a drive before two marks have said that this is the machine.");
        if (!now.Has(Known.Bay))
            yield return (SafetyRule.PlaceIsKnown, $"'{id}' pulls a drive before two marks have said that this is the bay.");
        if (now.Has(Known.DriveOut))
            yield return (SafetyRule.Order, $"'{id}' pulls a drive while another one is out.");
        if (swap == Words.Of(SwapPower.Off) && (now.Open & node.PowerBit) == 0)
            yield return (
                SafetyRule.Order,
                $"'{id}' pulls a drive with the power on, from a machine that has to be switched off for it ('opens: power')."
            );
    }

    /// <summary>What the machine has not seen yet is no member of anything; from then on it is a pull like any other.</summary>
    private static IEnumerable<(SafetyRule, string)> Unseat(RunStep step, Situation now)
    {
        if (now.Has(Known.DriveOut) || !now.Has(Known.NewIn))
            yield return (SafetyRule.Order, $"'{step.Id}' takes the drive that was put in out again, and none is in.");
        else if (now.Has(Known.NewSeen) || now.Has(Known.RebuildSeen))
            yield return (
                SafetyRule.PullIsAllowed,
                $"'{step.Id}' takes out a drive that the machine has seen and may use; that is a pull ('records: drawn-out')."
            );
    }

    private static IEnumerable<(SafetyRule, string)> CarrierOff(RunStep step, Situation now)
    {
        if (!now.Has(Known.DriveOut))
            yield return (SafetyRule.Order, $"'{step.Id}' takes a drive from its carrier, and none is out.");
        else if (!now.Has(Known.RightDrive))
            yield return (SafetyRule.SerialIsCompared, $"'{step.Id}' takes the drive from its carrier before its serial was compared.");
    }

    private static IEnumerable<(SafetyRule, string)> Insert(RunStep step, Situation now)
    {
        if (!now.Has(Known.DriveOut))
            yield return (SafetyRule.Order, $"'{step.Id}' puts a drive into a bay that is not empty.");
        else if (!now.Has(Known.RightDrive))
            yield return (SafetyRule.SerialIsCompared, $"'{step.Id}' fills the bay before the serial of what came out was compared.");
        if (now.Has(Known.DriveOut) && !now.Has(Known.Waited))
            yield return (
                SafetyRule.WaitIsKept,
                $"'{step.Id}' fills the bay without the model's wait after the pull (a hold with 'seconds: {ModelProperties.WaitAfterPull}')."
            );
    }

    /// <summary>Where nothing comes out that could be read, the place is all there is to go by.</summary>
    private static IEnumerable<(SafetyRule, string)> Place(RunStep step, Situation now)
    {
        if (!now.Has(Known.Machine))
            yield return (SafetyRule.PlaceIsKnown, $"'{step.Id}' adds a drive before two marks have said that this is the machine.");
        if (!now.Has(Known.Bay))
            yield return (SafetyRule.PlaceIsKnown, $"'{step.Id}' adds a drive before two marks have said that this is the bay.");
    }

    /// <summary>What is left open where it ends.</summary>
    public static IEnumerable<(SafetyRule, string)> LeftOpen(bool handedOver, IReadOnlyList<string> open)
    {
        if (open.Count > 0)
            yield return (
                SafetyRule.PutRight,
                $"The {(handedOver ? "run is handed over" : "end is reached")} with {string.Join(" and ", open)} not put right."
            );
    }

    /// <summary>What reaching the end, or handing over, in this situation breaks.</summary>
    public static IEnumerable<(SafetyRule, string)> AtEnd(ComesBack pattern, bool handedOver, Situation now)
    {
        if (!handedOver && Unproven(pattern, now) is { } lacks)
            yield return (SafetyRule.ProvenDone, $"The end is reached {lacks}.");
        if (handedOver && now.Has(Known.WrongDrive))
            yield return (SafetyRule.SerialIsCompared, "The run is handed over while a wrong drive is out.");
    }

    /// <summary>What going on to the next drive in this situation breaks.</summary>
    public static string? AtNextDrive(ComesBack pattern, Situation now) =>
        now.Has(Known.DriveOut) ? "The next drive is begun while the bay of this one is empty."
        : !now.Has(Known.NewIn) ? null
        : !now.Has(Known.NewSeen) ? "The next drive is begun before the machine has seen the new one."
        : pattern == ComesBack.ByRebuild && !now.Has(Known.RebuildSeen)
            ? "The next drive is begun without a rebuild onto this one seen to start."
        : null;

    /// <summary>The proof belongs to the way redundancy comes back.</summary>
    private static string? Unproven(ComesBack pattern, Situation now) =>
        now.Has(Known.DriveOut)
            ? "with a bay left empty"
            : pattern switch
            {
                ComesBack.ByRebuild => !now.Has(Known.RebuildSeen) ? "without a rebuild seen to start"
                : !now.Has(Known.Whole) ? "without the array seen whole again"
                : After(now),
                ComesBack.SpareSteppedIn or ComesBack.Added => !now.Has(Known.SpareBack)
                    ? "without the new drive seen as spare"
                    : After(now),
                ComesBack.ReleasedFirst => !now.Has(Known.AllGood) ? "without every new drive looked at again" : After(now),
                ComesBack.Cannot => !now.Has(Known.Restored) ? "without the customer's word that the data is there again"
                : !now.Has(Known.SeenAgain) ? "without a look at the machine afterwards"
                : now.Has(Known.NewIn) && !now.Has(Known.AllGood) ? "without the new drive seen to be good and in use"
                : null,
                _ => now.Has(Known.AsBefore) || now.Has(Known.SeenAgain) ? null : "without a look at the machine afterwards",
            };

    private static string? After(Situation now) => now.Has(Known.SnapshotAfter) ? null : "without a snapshot from after";
}
