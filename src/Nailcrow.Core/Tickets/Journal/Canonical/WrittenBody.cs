using System.Text;
using System.Text.Json;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Core.Tickets.Journal.Canonical;

/// <summary>A body as it will be stored, and as it will be read after a restart: that is what is believed from the beginning.</summary>
/// <param name="Of">What it was made from.</param>
/// <param name="Text">Its canonical JSON.</param>
/// <param name="ReadBack">What reading that text gives.</param>
/// <param name="Passes">Which bound it passes, as a sentence; null where none.</param>
public sealed record WrittenBody(EntryBody Of, string Kind, string Text, EntryBody ReadBack, string? Passes)
{
    public static WrittenBody From(EntryBody body)
    {
        var said = JsonSerializer.SerializeToElement(body, JournalJson.Default.EntryBody);
        var text = new StringBuilder();
        CanonicalJson.Write(said, text);
        var canonical = text.ToString();
        using var stored = JsonDocument.Parse(canonical);
        var kind = EntryKinds.Of(body);
        return new(body, kind, canonical, EntryReader.Body(stored.RootElement, kind), Bounds.Problem(said));
    }
}
