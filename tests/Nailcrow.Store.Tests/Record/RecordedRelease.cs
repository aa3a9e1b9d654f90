using System.Text.Json;

namespace Nailcrow.Store.Tests.Record;

/// <summary>What a release wrote, as its table held it, and the tickets that came of it.</summary>
internal sealed record RecordedRelease(string Name, string Folder)
{
    public static IReadOnlyList<RecordedRelease> All { get; } =
    [
        .. Directory
            .EnumerateDirectories(Path.Combine(Repository.Root, "tests", "Recorded"))
            .Select(f => new RecordedRelease(Path.GetFileName(f), f)),
    ];

    public IEnumerable<JsonElement> Rows =>
        File.ReadLines(Path.Combine(Folder, "journal.ndjson")).Select(line => JsonDocument.Parse(line).RootElement);

    public IEnumerable<(long Number, JsonElement Told)> Tickets =>
        Directory
            .EnumerateFiles(Folder, "T-*.json")
            .Select(f => (long.Parse(Path.GetFileNameWithoutExtension(f)[2..]), JsonDocument.Parse(File.ReadAllText(f)).RootElement));
}
