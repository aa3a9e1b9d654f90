using System.Diagnostics;
using System.Diagnostics.CodeAnalysis;

namespace Nailcrow.Core.Terms;

/// <summary>What became of something a person typed: a value, or a sentence that says what would be accepted.</summary>
public abstract record Parsed<T>
{
    private Parsed() { }

    public sealed record Ok(T Value) : Parsed<T>;

    public sealed record Refused(string Reason) : Parsed<T>;

    /// <summary>The value where there is one, else why not.</summary>
    public bool Is([MaybeNullWhen(false)] out T value, out string reason)
    {
        (value, reason) = this switch
        {
            Ok ok => (ok.Value, ""),
            Refused no => (default, no.Reason),
            _ => throw new UnreachableException(),
        };
        return this is Ok;
    }
}
