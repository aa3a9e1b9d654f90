using System.Text.Json;
using System.Text.Json.Serialization;

namespace Nailcrow.Cli.Shell;

/// <summary>A person's stay at a service.</summary>
internal sealed record Session(string Name, Uri Service, string Token);

/// <summary>Everybody signed in from this account; the last to sign in is who acts unless <c>--as</c> says otherwise.</summary>
internal sealed record Sessions(IReadOnlyList<Session> All)
{
    public static string Folder =>
        Environment.GetEnvironmentVariable("NAILCROW_HOME")
        ?? Path.Combine(
            Environment.GetFolderPath(Environment.SpecialFolder.ApplicationData, Environment.SpecialFolderOption.Create),
            "nailcrow"
        );

    private static string File => Path.Combine(Folder, "sessions.json");

    public Session? Of(string? name) => name is null ? All.LastOrDefault() : All.LastOrDefault(s => s.Name == name);

    /// <summary>The same person, or whoever was last, at one service.</summary>
    public Session? Of(string? name, Uri service) =>
        All.LastOrDefault(s => SamePlace(s.Service, service) && (name is null || s.Name == name));

    public static bool SamePlace(Uri one, Uri other) =>
        Uri.Compare(one, other, UriComponents.SchemeAndServer, UriFormat.Unescaped, StringComparison.OrdinalIgnoreCase) == 0;

    public Sessions With(Session session) =>
        new([.. All.Where(s => s.Name != session.Name || !SamePlace(s.Service, session.Service)), session]);

    public Sessions Without(string name) => new([.. All.Where(s => s.Name != name)]);

    public static Sessions Read()
    {
        try
        {
            return System.IO.File.Exists(File)
                ? JsonSerializer.Deserialize(System.IO.File.ReadAllText(File), SessionJson.Default.Sessions) ?? new([])
                : new([]);
        }
        catch (JsonException)
        {
            return new([]); // half-written by a full disk; signing in again mends it
        }
    }

    public void Save()
    {
        Directory.CreateDirectory(Folder);
        var draft = $"{File}.{Environment.ProcessId}";
        using (
            var stream = new FileStream(
                draft,
                new FileStreamOptions
                {
                    Mode = FileMode.Create,
                    Access = FileAccess.Write,
                    UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
                }
            )
        )
            JsonSerializer.Serialize(stream, this, SessionJson.Default.Sessions);
        System.IO.File.Move(draft, File, overwrite: true);
    }
}

[JsonSourceGenerationOptions(PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase, WriteIndented = true)]
[JsonSerializable(typeof(Sessions))]
internal sealed partial class SessionJson : JsonSerializerContext;
