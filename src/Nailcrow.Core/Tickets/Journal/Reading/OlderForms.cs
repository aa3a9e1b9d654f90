using System.Text.Json;
using System.Text.Json.Nodes;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Tickets.Journal.Reading;

/// <summary>
/// How entries were written before, told in the form of today. A field that a kind gains needs nothing here: it is optional
/// and has a default. What needs a line: a word that was renamed, a field that moved, a default that depends on other fields.
/// </summary>
internal static class OlderForms
{
    private sealed record OlderForm(string Kind, Func<JsonElement, bool> Is, Action<JsonObject> Bring);

    private static readonly OlderForm[] All =
    [
        // Until 0.1.0 a sheet was for one drive, which was told beside it.
        new("sheet-compiled", IsOfOneDrive, body => body["sheet"]!["drives"] = new JsonArray(OnlyDrive(body["sheet"]!))), // IsOfOneDrive saw the sheet
    ];

    /// <summary>Whether some version wrote this kind otherwise; its entries are then looked at one by one.</summary>
    public static bool MayBeOf(string kind) => Array.Exists(All, f => f.Kind == kind);

    public static JsonElement Today(string kind, JsonElement written)
    {
        var older = All.Where(f => f.Kind == kind && f.Is(written)).ToList();
        if (older.Count == 0)
            return written;
        var body = JsonObject.Create(written) ?? throw new JsonException("The body is no object.");
        older.ForEach(f => f.Bring(body));
        return JsonSerializer.SerializeToElement<JsonNode>(body, JournalJson.Default.JsonNode);
    }

    private static bool IsOfOneDrive(JsonElement body) =>
        body.TryGetProperty("sheet", out var sheet)
        && sheet.ValueKind == JsonValueKind.Object
        && (!sheet.TryGetProperty("drives", out var drives) || drives.ValueKind == JsonValueKind.Null);

    private static JsonObject OnlyDrive(JsonNode sheet) =>
        new() { ["bay"] = sheet["targetBay"]?.DeepClone(), ["serial"] = sheet["targetSerial"]?.DeepClone() };
}
