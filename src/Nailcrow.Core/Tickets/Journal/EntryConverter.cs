using System.Text.Json;
using System.Text.Json.Serialization;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>An entry on its way to whoever asks: the text as it was written, with its hash; nothing is told anew by today's types.</summary>
public sealed class EntryConverter : JsonConverter<Entry>
{
    public override void Write(Utf8JsonWriter json, Entry entry, JsonSerializerOptions options)
    {
        json.WriteStartObject();
        json.WriteString("id", entry.Id);
        json.WriteNumber("ticket", entry.Ticket);
        json.WriteNumber("seq", entry.Seq);
        json.WriteString("at", entry.At);
        json.WriteNumber("clockOffsetMs", entry.ClockOffsetMs);
        json.WriteString("recordedAt", entry.RecordedAt);
        json.WriteString("by", entry.By);
        json.WritePropertyName("body");
        if (entry.BodyAsWritten() is { ValueKind: not JsonValueKind.Undefined } body)
            body.WriteTo(json);
        else // not even JSON any more; what it was can still be said
            JsonSerializer.Serialize(
                json,
                new() { ["kind"] = EntryKinds.Of(entry.Body), ["unreadable"] = entry.Text },
                JournalJson.Default.DictionaryStringString
            );
        json.WriteString("hash", entry.Hash);
        json.WriteEndObject();
    }

    public override Entry Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options)
    {
        using var whole = JsonDocument.ParseValue(ref reader);
        var said = whole.RootElement;
        var open = new Entry(
            said.GetProperty("id").GetGuid(),
            said.GetProperty("ticket").GetInt64(),
            said.GetProperty("seq").GetInt64(),
            said.GetProperty("at").GetDateTimeOffset(),
            said.GetProperty("clockOffsetMs").GetInt64(),
            said.GetProperty("recordedAt").GetDateTimeOffset(),
            said.GetProperty("by").GetString() ?? "",
            EntryReader.Body(said.GetProperty("body")),
            said.GetProperty("hash").GetString() ?? ""
        );
        return open with { Text = EntryText.Of(open, said.GetProperty("body")) };
    }
}
