using System.Security.Cryptography;
using System.Text;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures;

/// <summary>What the proof believes of a procedure, since it reads declarations and no minds: shown to whoever checks or publishes it.</summary>
public static class Trusting
{
    public static IReadOnlyList<TakenOnTrust> Of(Procedure procedure) => [.. procedure.Steps.SelectMany(Of)];

    private static IEnumerable<TakenOnTrust> Of(ProcedureStep step)
    {
        if (step.MovesNothing)
            yield return new(Belief.MovesNothing, step.Id, step.At, step.Step.Say);
        foreach (var (word, claim) in step.Means)
            yield return new(Belief.Means, step.Id, step.At, step.Step.Say, word, claim);
        if (step.Step is { Records: Records.BayMark or Records.ChassisMark, Mark: { } mark })
            yield return new(Belief.Mark, step.Id, step.At, step.Step.Say, mark);
    }

    /// <summary>A short word for just this list, which whoever publishes gives back: SHA-256 over its words, first 8 hex digits.</summary>
    public static string Word(IReadOnlyList<TakenOnTrust> list) =>
        Convert.ToHexStringLower(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(
                    string.Join('\0', list.Select(t => string.Join('\u0001', Words.Of(t.What), t.Step, t.Sentence, t.Word, t.Claim)))
                )
            )
        )[..8];
}
