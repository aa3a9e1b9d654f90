using System.Globalization;
using System.Text;
using System.Text.Json;

namespace Nailcrow.Core.Tickets.Journal.Canonical;

/// <summary>
/// The text of an entry: RFC 8785 canonical JSON of everything but its own hash, which stands there as the empty string.
/// It is made once, when the entry is accepted, and never again.
/// </summary>
public static class EntryText
{
    public static string Of(Entry open) => Of(open, JsonSerializer.SerializeToElement(open.Body, JournalJson.Default.EntryBody));

    /// <param name="body">What it says, as it was written; the entry's own body is not looked at.</param>
    public static string Of(Entry open, JsonElement body)
    {
        var text = new StringBuilder();
        CanonicalJson.Write(body, text);
        return Of(open, text.ToString());
    }

    /// <param name="body">The canonical JSON of what it says.</param>
    internal static string Of(Entry open, string body)
    {
        // The names as section 3.2.3 orders them.
        var text = new StringBuilder("{\"at\":\"").Append(Time(open.At)).Append("\",\"body\":").Append(body).Append(",\"by\":");
        CanonicalJson.WriteString(open.By, text);
        text.Append(",\"clockOffsetMs\":").Append(CanonicalJson.Number(open.ClockOffsetMs));
        text.Append(",\"hash\":\"\",\"id\":\"").Append(open.Id.ToString("D"));
        text.Append("\",\"recordedAt\":\"").Append(Time(open.RecordedAt));
        text.Append("\",\"seq\":").Append(CanonicalJson.Number(open.Seq));
        return text.Append(",\"ticket\":").Append(CanonicalJson.Number(open.Ticket)).Append('}').ToString();
    }

    /// <summary>What a text says in its body; nothing at all where it is no text of an entry.</summary>
    public static JsonElement BodyOf(string text)
    {
        try
        {
            using var whole = JsonDocument.Parse(text);
            return whole.RootElement.TryGetProperty("body", out var body) ? body.Clone() : default;
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException)
        {
            return default;
        }
    }

    /// <summary>RFC 3339 with as many digits of a second as it has, and its offset; what it has always been written as.</summary>
    private static string Time(DateTimeOffset at) => at.ToString("yyyy-MM-ddTHH:mm:ss.FFFFFFFzzz", CultureInfo.InvariantCulture);
}
