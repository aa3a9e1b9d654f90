using System.Text.Json;

namespace Nailcrow.Core.Terms;

/// <summary>
/// JSON of somebody who is not trusted, read as a whole or not at all. What lies in a document is decoded only when it is asked for; a
/// half character (RFC 8259, section 8.2) or bytes that are no UTF-8 would be found there, by whoever looks at the name beside it.
/// </summary>
public static class WholeJson
{
    private const int UsualDepth = 64;

    /// <exception cref="JsonException">It is not JSON, deeper than that, or has a text in it that is none.</exception>
    public static JsonDocument Parse(ReadOnlyMemory<byte> utf8, int maxDepth = UsualDepth)
    {
        var reader = new Utf8JsonReader(utf8.Span, new JsonReaderOptions { MaxDepth = maxDepth });
        while (reader.Read())
            if (reader.TokenType is JsonTokenType.String or JsonTokenType.PropertyName)
                Decode(ref reader);
        return JsonDocument.Parse(utf8, new JsonDocumentOptions { MaxDepth = maxDepth });
    }

    private static void Decode(ref Utf8JsonReader reader)
    {
        try
        {
            reader.GetString();
        }
        catch (InvalidOperationException e)
        {
            throw new JsonException($"The text that begins at byte {reader.TokenStartIndex} is none: {e.Message}", e);
        }
    }
}
