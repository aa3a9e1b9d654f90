namespace Nailcrow.Core;

/// <summary>What became of something a person typed: a value, or a sentence that says what would be accepted.</summary>
public abstract record Parsed<T>
{
    private Parsed() { }

    public sealed record Ok(T Value) : Parsed<T>;

    public sealed record Refused(string Reason) : Parsed<T>;
}
