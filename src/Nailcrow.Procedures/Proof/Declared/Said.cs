using System.Globalization;
using System.Text;
using Nailcrow.Core.Procedures;

namespace Nailcrow.Procedures.Proof.Declared;

/// <summary>One text of a step, with the key it stands under, in the form in which words are looked for.</summary>
/// <param name="IsInstruction">The step's own sentence: what a step declares, it declares of this one only.</param>
internal sealed record Said(string Key, string Text, bool IsInstruction)
{
    /// <summary>Everything that a step says to its reader, its answers included.</summary>
    public static IEnumerable<Said> Of(RunStep step) =>
        new (string Key, string? Text)[]
        {
            (Core.Terms.Words.Of(step.Kind), step.Say),
            ("see", step.See),
            ("hear", step.Hear),
            ("if-not", step.IfNot),
        }
            .Concat((step.NormalNow ?? []).Select(t => (Key: "normal-now", Text: (string?)t)))
            .Concat(step.Answers.Select(a => (Key: "answers", Text: (string?)a.Answer)))
            .Where(t => t.Text is not null)
            .Select((t, i) => new Said(t.Key, t.Text!, i == 0)); // those without a text are left out

    /// <summary>Sentences of words: small letters, blanks in their braces, and a comma where a clause ends.</summary>
    public IEnumerable<IReadOnlyList<string>> Sentences()
    {
        var words = new List<string>();
        foreach (var word in Parts(Plain(Text)))
            if (word == Stop)
            {
                yield return [.. words];
                words.Clear();
            }
            else
                words.Add(word);
        yield return words;
    }

    public const string Pause = ",";
    private const string Stop = ".";

    /// <summary>Whoever reads it sees no difference: wide letters are letters, and marks that take no room are none.</summary>
    private static string Plain(string text) =>
        string.Concat(
                text.Where(c =>
                        CharUnicodeInfo.GetUnicodeCategory(c)
                            is not (UnicodeCategory.Format or UnicodeCategory.NonSpacingMark or UnicodeCategory.EnclosingMark)
                    )
                    .Select(c => c is >= '\uFF01' and <= '\uFF5E' ? (char)(c - '\uFF01' + '!') : c)
            )
            .ToLowerInvariant();

    private static IEnumerable<string> Parts(string text)
    {
        var word = new StringBuilder();
        foreach (var c in text + " ")
            if (char.IsLetter(c) || c is '\'' or '’' or '{' or '}' || (c == '-' && word.Length > 0 && word[0] == '{'))
                word.Append(c);
            else
            {
                if (word.Length > 0)
                    yield return $"{word}".Replace("'", "", StringComparison.Ordinal).Replace("’", "", StringComparison.Ordinal);
                word.Clear();
                if (c is '.' or '!' or '?' or ';' or '\n')
                    yield return Stop;
                else if (c is ',' or ':' or '(' or ')' or '–' or '—')
                    yield return Pause;
            }
    }
}
