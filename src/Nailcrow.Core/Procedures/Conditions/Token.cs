namespace Nailcrow.Core.Procedures.Conditions;

/// <summary>One word, bracket or comma of a condition, with the character it begins at.</summary>
internal sealed record Token(string Text, int At)
{
    public bool IsEnd => Text.Length == 0;

    public static IEnumerable<Token> Of(string text)
    {
        for (var at = 0; at < text.Length; )
        {
            if (char.IsWhiteSpace(text[at]))
            {
                at++;
                continue;
            }
            var end = at;
            if (text[at] is '(' or ')' or ',')
                end++;
            else
                while (end < text.Length && !char.IsWhiteSpace(text[end]) && text[end] is not ('(' or ')' or ','))
                    end++;
            yield return new(text[at..end], at);
            at = end;
        }
        yield return new("", text.Length);
    }
}
