using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Sheets;

/// <summary>Turns a procedure into the run sheet of one ticket: conditions settled, loops laid out drive by drive, blanks filled.</summary>
public static class SheetCompiler
{
    // In 'normal-now', stands for whatever the model is known to do while it rebuilds.
    private const string RebuildAlarms = "rebuild";

    public static Parsed<RunSheet> Compile(Procedure procedure, SheetFacts facts, Guid id)
    {
        if (procedure.AppliesTo.Holds(facts.Of) == false)
            return new Parsed<RunSheet>.Refused(
                $"Procedure '{procedure.Id}' is for {procedure.AppliesTo}; here "
                    + $"{string.Join(", ", procedure.AppliesTo.Facts().Distinct().Select(f => $"{f} is {facts.Of(f)}"))}."
            );
        if (facts.Drives.Count == 0 && procedure.ComesBack is not (ComesBack.Cannot or ComesBack.Unchanged))
            return new Parsed<RunSheet>.Refused("No drive is to come out; say which ones.");
        var layout = Layout.Of(procedure, facts);
        if (facts.Drives.Count == 0 && layout.Laid.Any(l => NamesADrive(l.Written.Step)))
            return new Parsed<RunSheet>.Refused(
                $"'{procedure.Title}' is about a drive, and nothing tells which one: choose it on the ticket, or report its bay or serial, first."
            );
        var first = facts.Drives.Count > 0 ? facts.Drives[0] : new("", "", null, null);
        return new Parsed<RunSheet>.Ok(
            new(
                id,
                procedure.Id,
                procedure.Title,
                procedure.Version,
                facts.Array,
                first.Bay,
                first.Serial,
                facts.ChassisSerial,
                [.. layout.Laid.Select(l => Settle(l, layout, facts))],
                facts.Drives,
                procedure.ComesBack,
                RunSheet.ReadingRulesNow,
                facts.Model.WaitAfterPullSeconds,
                facts.Location
            )
        );
    }

    /// <summary>A sentence with nothing where the bay or the serial should stand would send somebody anywhere.</summary>
    private static bool NamesADrive(RunStep step) =>
        step.Erases || step.Against == ScanTarget.DriveOut || Blanks.In(step).Any(blank => blank is "bay" or "serial");

    private static RunStep Settle(LaidStep laid, Layout layout, SheetFacts facts)
    {
        var written = laid.Written;
        var step = written.Step;
        var normal = step.NormalNow?.SelectMany(n => n == RebuildAlarms ? facts.Model.NormalDuringRebuild : [n]).ToList();
        var open = laid.When is Condition.Constant;
        return Blanks.Fill(
            step with
            {
                Id = laid.Id,
                Answers = [.. AllAnswers.Of(written).Select(a => a with { Next = layout.Lead(laid, a.Next) })],
                Seconds = Seconds(written, facts),
                NormalNow = normal,
                Until = step.Until is null ? null : layout.Lead(laid, step.Until),
                When = open ? null : $"{laid.When}",
                Else = open ? null : layout.Lead(laid, Language.Targets.GoOn),
                Drive = laid.Drive,
            },
            BlankValues.Of(facts, laid.Drive)
        );
    }

    internal static int? Seconds(ProcedureStep written, SheetFacts facts) =>
        written.SecondsFrom is { } length && facts.Of(length) is { } seconds
            ? int.Parse(seconds, System.Globalization.CultureInfo.InvariantCulture)
            : written.Step.Seconds;
}
