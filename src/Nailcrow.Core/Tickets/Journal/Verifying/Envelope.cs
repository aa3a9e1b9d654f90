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
            var field = Named(json);
            json.Read();
            switch (field)
            {
                case Field.Id:
                    id = json.GetGuid();
                    break;
                case Field.Ticket:
                    ticket = json.GetInt64();
                    break;
                case Field.Seq:
                    seq = json.GetInt64();
                    break;
                case Field.At:
                    at = json.GetDateTimeOffset();
                    break;
                case Field.RecordedAt:
                    recordedAt = json.GetDateTimeOffset();
                    break;
                case Field.By:
                    by = json.GetString();
                    break;
                case Field.Body:
                    kind = KindOf(ref json);
                    break;
                default:
                    json.Skip();
                    break;
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

    private enum Field
    {
        Other,
        Id,
        Ticket,
        Seq,
        At,
        RecordedAt,
        By,
        Body,
    }

    // By bytes: millions are read, and no name is worth a string.
    private static Field Named(in Utf8JsonReader json) =>
        json.ValueTextEquals("id"u8) ? Field.Id
        : json.ValueTextEquals("ticket"u8) ? Field.Ticket
        : json.ValueTextEquals("seq"u8) ? Field.Seq
        : json.ValueTextEquals("at"u8) ? Field.At
        : json.ValueTextEquals("recordedAt"u8) ? Field.RecordedAt
        : json.ValueTextEquals("by"u8) ? Field.By
        : json.ValueTextEquals("body"u8) ? Field.Body
        : Field.Other;

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
