using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Procedures.Checked;

/// <summary>A rule that does not hold, and the shortest way there.</summary>
/// <param name="Path">Empty where the step alone breaks the rule, whatever led to it.</param>
public sealed record Finding(SafetyRule Rule, string Step, Place At, string Sentence, IReadOnlyList<PathStep> Path)
{
    /// <summary>
    /// It breaks no rule of what is done. What was written before everything had to be declared may declare too little, and is as safe as
    /// it was.
    /// </summary>
    public bool OnlyDeclaresTooLittle => Rule == SafetyRule.Declared;

    public override string ToString() => $"{At.File}:{At.Line}:{At.Column}: {Words.Of(Rule)}: {Sentence}";
}

/// <summary>One step of a path, with the answer given there; or, with no step, what is taken to be so from there on.</summary>
public sealed record PathStep(string? Step, string Say, string Answer)
{
    public override string ToString() => Step is null ? $"where {Answer}" : $"{Step}: {Answer}";
}

/// <summary>What exploring every path of a procedure found.</summary>
/// <param name="States">Different situations looked at; those that do not differ in anything that matters later count once.</param>
public sealed record ProofResult(int States, IReadOnlyList<Finding> Findings)
{
    public bool Holds => Findings.Count == 0;
}

/// <summary>Where a piece of a procedure stands. Lines and columns count from 1.</summary>
public sealed record Place(string File, long Line, long Column);
