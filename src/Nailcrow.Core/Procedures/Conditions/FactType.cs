namespace Nailcrow.Core.Procedures.Conditions;

/// <summary>What a fact can be: one of some words, or a number of some dimension.</summary>
public abstract record FactType
{
    private FactType() { }

    public sealed record OneOf(IReadOnlyList<string> Words) : FactType;

    public sealed record Number(Dimension Dimension) : FactType;

    /// <summary>Free text: kept on record, compared to nothing.</summary>
    public sealed record Text : FactType;
}
