using System.Buffers;
using System.Text;
using System.Text.Json;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Tickets.Journal.Reading;

/// <summary>Reads what any version wrote. It never throws: what cannot be read comes back as <see cref="Unreadable"/>.</summary>
public static class EntryReader
{
    public static Entry Read(StoredEntry stored) => Swiftly(stored) ?? Carefully(stored);

    /// <summary>
    /// In one pass and without a document, for what nearly every entry is: of today's form and as it should be. Null for anything
    /// else, which is then looked at with care. Opening a long ticket and telling all lists anew is mostly this.
    /// </summary>
    private static Entry? Swiftly(StoredEntry stored)
    {
        if (!EntryKinds.Known.Contains(stored.Kind) || OlderForms.MayBeOf(stored.Kind))
            return null;
        var bytes = ArrayPool<byte>.Shared.Rent(Encoding.UTF8.GetMaxByteCount(stored.Text.Length));
        try
        {
            var json = new Utf8JsonReader(bytes.AsSpan(0, Encoding.UTF8.GetBytes(stored.Text, bytes)));
            return OnePass(stored, ref json);
        }
        catch (Exception e) when (IsOfTheText(e))
        {
            return null;
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(bytes);
        }
    }

    private static Entry? OnePass(StoredEntry stored, ref Utf8JsonReader json)
    {
        (DateTimeOffset? at, long? offset, DateTimeOffset? recorded, string? by, EntryBody? body) = (null, null, null, null, null);
        if (!json.Read() || json.TokenType != JsonTokenType.StartObject)
            return null;
        while (json.Read() && json.TokenType == JsonTokenType.PropertyName)
        {
            var (isAt, isOffset, isRecorded, isBy, isBody) = (
                json.ValueTextEquals("at"u8),
                json.ValueTextEquals("clockOffsetMs"u8),
                json.ValueTextEquals("recordedAt"u8),
                json.ValueTextEquals("by"u8),
                json.ValueTextEquals("body"u8)
            );
            json.Read();
            if (isAt)
                at = json.GetDateTimeOffset();
            else if (isOffset)
                offset = json.GetInt64();
            else if (isRecorded)
                recorded = json.GetDateTimeOffset();
            else if (isBy)
                by = json.GetString();
            else if (isBody)
                body = JsonSerializer.Deserialize(ref json, JournalJson.Default.EntryBody);
            else
                json.Skip();
        }
        var isWhole = json.TokenType == JsonTokenType.EndObject && !json.Read();
        return
            isWhole
            && at is { } happened
            && offset is { } off
            && recorded is { } kept
            && by is not null
            && body is not null
            && EntryKinds.Of(body) == stored.Kind
            ? new(stored.Id, stored.Ticket, stored.Seq, happened, off, kept, by, body, stored.Hash) { Text = stored.Text }
            : null;
    }

    private static Entry Carefully(StoredEntry stored)
    {
        try
        {
            using var whole = JsonDocument.Parse(stored.Text);
            var (said, text) = (whole.RootElement, stored.Text);
            return new(
                stored.Id,
                stored.Ticket,
                stored.Seq,
                said.GetProperty("at").GetDateTimeOffset(),
                said.GetProperty("clockOffsetMs").GetInt64(),
                said.GetProperty("recordedAt").GetDateTimeOffset(),
                said.GetProperty("by").GetString() ?? stored.By,
                Body(said.GetProperty("body"), stored.Kind),
                stored.Hash
            )
            {
                Text = text,
            };
        }
        catch (Exception e) when (IsOfTheText(e))
        {
            return new(
                stored.Id,
                stored.Ticket,
                stored.Seq,
                stored.At,
                0,
                stored.RecordedAt,
                stored.By,
                new Unreadable(stored.Kind, "its text is not that of an entry.", ""),
                stored.Hash
            )
            {
                Text = stored.Text,
            };
        }
    }

    /// <param name="otherwise">The kind to go by where the body does not say its own.</param>
    internal static EntryBody Body(JsonElement written, string otherwise = "?")
    {
        var kind =
            written.ValueKind == JsonValueKind.Object
            && written.TryGetProperty("kind", out var said)
            && said.ValueKind == JsonValueKind.String
                ? said.GetString() ?? otherwise
                : otherwise;
        if (!EntryKinds.Known.Contains(kind))
            return new Unreadable(kind, "this version does not know the kind.", written.GetRawText());
        try
        {
            return OlderForms.Today(kind, written).Deserialize(JournalJson.Default.EntryBody)
                ?? new Unreadable(kind, "it is empty.", written.GetRawText());
        }
        catch (Exception e) when (IsOfTheText(e))
        {
            return new Unreadable(kind, Why(e), written.GetRawText());
        }
    }

    /// <summary>What reading a text can come to that is not as it should be; anything else is a fault of ours.</summary>
    private static bool IsOfTheText(Exception e) =>
        e
            is JsonException
                or NotSupportedException
                or InvalidOperationException
                or FormatException
                or KeyNotFoundException
                or ArgumentException;

    private static string Why(Exception e) =>
        e is JsonException { Path: { Length: > 1 } path } ? $"not at {path}." : "its fields are not those of its kind.";
}
