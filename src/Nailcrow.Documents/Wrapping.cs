using SkiaSharp;

namespace Nailcrow.Documents;

/// <summary>A text as the lines it takes in a width.</summary>
internal static class Wrapping
{
    /// <summary>Breaks at spaces, at the breaks the text has itself, and inside a word that is wider than a line.</summary>
    public static IEnumerable<string> Lines(string text, SKFont font, float width) =>
        text.Split('\n').SelectMany(paragraph => OfParagraph(paragraph, font, width));

    private static IEnumerable<string> OfParagraph(string text, SKFont font, float width)
    {
        var line = "";
        foreach (var word in text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).SelectMany(w => Pieces(w, font, width)))
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && font.MeasureText(longer) > width)
            {
                yield return line;
                line = word;
            }
            else
                line = longer;
        }
        if (line.Length > 0)
            yield return line;
    }

    private static IEnumerable<string> Pieces(string word, SKFont font, float width)
    {
        while (word.Length > 1 && font.MeasureText(word) > width)
        {
            var fits = Math.Max(
                1,
                Enumerable.Range(1, word.Length - 1).TakeWhile(n => font.MeasureText(word[..n]) <= width).LastOrDefault()
            );
            if (char.IsHighSurrogate(word[fits - 1]))
                fits = fits > 1 ? fits - 1 : 2; // half a sign is none
            yield return word[..fits];
            word = word[fits..];
        }
        yield return word;
    }
}
