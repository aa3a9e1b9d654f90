namespace Nailcrow.Core.Procedures.Checked;

/// <summary>What is wrong with a procedure file, and where. Lines and columns count from 1.</summary>
public sealed record ProcedureProblem(string File, long Line, long Column, string Sentence)
{
    public override string ToString() => $"{File}:{Line}:{Column}: {Sentence}";
}
