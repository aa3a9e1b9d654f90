namespace Nailcrow.Core.Procedures;

/// <summary>Checks that every branch leads somewhere and every blank can be filled.</summary>
internal sealed class ProcedureLinks(IReadOnlyList<ProcedureStep> steps, Action<long, long, string> report)
{
    public const string GoOn = "go on";
    public const string End = "end";

    public void Check()
    {
        var ids = steps.Select(s => s.Step.Id).ToHashSet();
        foreach (var twice in steps.GroupBy(s => s.Step.Id).Where(g => g.Count() > 1))
            Report(twice.Last(), $"Step '{twice.Key}' stands on line {twice.First().Line} already; an id is used once.");
        foreach (var step in steps)
        {
            foreach (var target in Targets(step).Where(t => !ids.Contains(t)))
                Report(step, $"Step '{step.Step.Id}' leads to '{target}', which is no step here.{Nearest.Hint(target, ids)}");
            foreach (var blank in Blanks.In(step.Step).Where(b => !Blanks.Known.Contains(b)))
                Report(step, $"Step '{step.Step.Id}' has the blank '{{{blank}}}', which nothing fills.{Nearest.Hint(blank, Blanks.Known)} Accepted: {string.Join(", ", Blanks.Known)}.");
        }
        foreach (var pull in steps.Where(s => s.Step is { Against: ScanTarget.DriveOut }))
            MismatchPutsBack(pull);
    }

    /// <summary>A wrong drive leads straight back into its bay, and nowhere else.</summary>
    private void MismatchPutsBack(ProcedureStep scan)
    {
        var next = steps.FirstOrDefault(s => s.Step.Id == scan.Step.Leading("different")?.Next);
        if (next is not null && next.Step.Records != Records.PutBack)
            Report(scan, $"A different serial at '{scan.Step.Id}' leads to '{next.Step.Id}', which does not put the drive back; it has to be a step that records put-back.");
    }

    private static IEnumerable<string> Targets(ProcedureStep step) =>
        step.Step.Answers.Select(a => a.Next).Append(step.Then).Append(step.Step.Until).OfType<string>().Where(t => t is not (GoOn or End));

    private void Report(ProcedureStep step, string sentence) => report(step.Line, step.Column, sentence);
}
