using System.Text.Json;

namespace Nailcrow.Core.Tickets.Journal.Verifying;

/// <summary>What an entry's text says of itself, read without its types: the body is only asked for its kind.</summary>
internal readonly ref struct Envelope
{
    public Guid Id { get; private init; }
    public long Ticket { get; private init; }
    public long Seq { get; private init; }
    public DateTimeOffset At { get; private init; }
    public DateTimeOffset RecordedAt { get; private init; }
    public string? By { get; private init; }
    public string? Kind { get; private init; }

    /// <exception cref="JsonException">The text is no text of an entry.</exception>
    public static Envelope Of(ReadOnlySpan<byte> text)
    {
        var json = new Utf8JsonReader(text);
        var (id, ticket, seq) = (Guid.Empty, 0L, 0L);
        var (at, recordedAt) = (default(DateTimeOffset), default(DateTimeOffset));
        string? by = null,
            kind = null;
        json.Read();
        if (json.TokenType != JsonTokenType.StartObject)
            throw new JsonException("It is no object.");
        while (json.Read() && json.TokenType == JsonTokenType.PropertyName)
        {
            if (json.ValueTextEquals("id"u8))
            {
                json.Read();
                id = json.GetGuid();
            }
            else if (json.ValueTextEquals("ticket"u8))
            {
                json.Read();
                ticket = json.GetInt64();
            }
            else if (json.ValueTextEquals("seq"u8))
            {
                json.Read();
                seq = json.GetInt64();
            }
            else if (json.ValueTextEquals("at"u8))
            {
                json.Read();
                at = json.GetDateTimeOffset();
            }
            else if (json.ValueTextEquals("recordedAt"u8))
            {
                json.Read();
                recordedAt = json.GetDateTimeOffset();
            }
            else if (json.ValueTextEquals("by"u8))
            {
                json.Read();
                by = json.GetString();
            }
            else if (json.ValueTextEquals("body"u8))
            {
                json.Read();
                kind = KindOf(ref json);
            }
            else
            {
                json.Read();
                json.Skip();
            }
        }
        return new()
        {
            Id = id,
            Ticket = ticket,
            Seq = seq,
            At = at,
            RecordedAt = recordedAt,
            By = by,
            Kind = kind,
        };
    }

    private static string? KindOf(ref Utf8JsonReader json)
    {
        string? kind = null;
        if (json.TokenType != JsonTokenType.StartObject)
            return kind;
        while (json.Read() && json.TokenType == JsonTokenType.PropertyName)
        {
            var isKind = json.ValueTextEquals("kind"u8);
            json.Read();
            if (isKind && json.TokenType == JsonTokenType.String)
                kind = json.GetString();
            json.Skip();
        }
        return kind;
    }
}
