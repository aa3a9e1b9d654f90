using System.Text.Json;

namespace Nailcrow.Core.Tickets.Journal.Reading;

/// <summary>Reads what any version wrote. It never throws: what cannot be read comes back as <see cref="Unreadable"/>.</summary>
public static class EntryReader
{
    public static Entry Read(StoredEntry stored)
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
