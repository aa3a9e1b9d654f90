using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Telling;

/// <summary>What was read last, beside what it was held against.</summary>
/// <param name="Differs">Places, from 0, at which the two differ; what is longer differs where the other has ended.</param>
public sealed record LastScan(string Step, string Read, string Expected, IReadOnlyList<int> Differs)
{
    /// <summary>Null where the last answer was to no scan, or was no serial at all.</summary>
    internal static LastScan? Of(Ticket ticket, RunSheet sheet, Run run) =>
        run.Visits is [.., var last]
        && sheet.Step(last.Step) is { Kind: StepKind.Scan } step
        && SerialNumber.IsPlausible(last.Answer)
        && Stepping.Expected(ticket, sheet, step) is { } expected
            ? Beside(step.Id, SerialNumber.Normalise(last.Answer), SerialNumber.Normalise(expected))
            : null;

    private static LastScan Beside(string step, string read, string expected) =>
        new(
            step,
            read,
            expected,
            [
                .. Enumerable
                    .Range(0, Math.Max(read.Length, expected.Length))
                    .Where(i => read.ElementAtOrDefault(i) != expected.ElementAtOrDefault(i)),
            ]
        );
}
