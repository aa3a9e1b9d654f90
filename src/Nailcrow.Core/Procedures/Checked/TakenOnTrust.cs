using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Procedures.Checked;

/// <summary>What no proof can know of a sentence, and its author says.</summary>
[JsonConverter(typeof(KebabEnum<Belief>))]
public enum Belief
{
    /// <summary>It names a drive, bay, carrier or array, and nothing happens to it.</summary>
    MovesNothing,

    /// <summary>A word in it sounds as if a drive were moved or emptied, and means something else.</summary>
    Means,

    /// <summary>What it asks really is the mark that it is said to be.</summary>
    Mark,
}

/// <summary>One thing that a procedure is believed in: whoever publishes it answers for it.</summary>
/// <param name="Sentence">The sentence it is about.</param>
/// <param name="Word">Which word is explained, or which mark it is.</param>
/// <param name="Claim">What its author says that the word means.</param>
public sealed record TakenOnTrust(Belief What, string Step, Place At, string Sentence, string? Word = null, string? Claim = null)
{
    /// <summary>The same words about the same step, wherever they stand in their file.</summary>
    public bool Says(TakenOnTrust other) =>
        (What, Step, Sentence, Word, Claim) == (other.What, other.Step, other.Sentence, other.Word, other.Claim);
}
