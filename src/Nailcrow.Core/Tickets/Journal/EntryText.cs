using System.Buffers;
using System.Text.Json;

namespace Nailcrow.Core.Tickets.Journal;

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
        var buffer = new ArrayBufferWriter<byte>();
        using (var json = new Utf8JsonWriter(buffer))
        {
            json.WriteStartObject();
            json.WriteString("id", open.Id);
            json.WriteNumber("ticket", open.Ticket);
            json.WriteNumber("seq", open.Seq);
            json.WriteString("at", open.At);
            json.WriteNumber("clockOffsetMs", open.ClockOffsetMs);
            json.WriteString("recordedAt", open.RecordedAt);
            json.WriteString("by", open.By);
            json.WritePropertyName("body");
            body.WriteTo(json);
            json.WriteString("hash", "");
            json.WriteEndObject();
        }
        using var whole = JsonDocument.Parse(buffer.WrittenMemory);
        return CanonicalJson.Of(whole.RootElement);
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
}
