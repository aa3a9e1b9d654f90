namespace Nailcrow.Core.Terms;

/// <summary>The character U+0000, which ends texts where C is spoken: no text has it in it.</summary>
public static class EndOfText
{
    public const char Character = '\0';

    /// <summary>What is said of whatever has it, behind its name and "has".</summary>
    public const string Sentence = "a character U+0000 in it, which no text has; send it without.";
}
