using System.Net.Sockets;
using System.Text.Json;

namespace Nailcrow.ManyLives;

/// <summary>
/// Where a test asks for a life of the program: a line with its arguments (JSON), answered with its address. It lives until
/// the line is dropped, or "end" is said; that is answered when it has ended.
/// </summary>
/// <remarks>
/// Starting a process anew costs several seconds of compiling what was compiled for the test before; a second life in the
/// same process costs none of it, and has everything else of its own: settings, storage, memory of what it serves.
/// </remarks>
public static class LivesDoor
{
    /// <summary>The variable that names the socket.</summary>
    public const string Variable = "NAILCROW_TEST_LIVES";

    /// <summary>Serves whoever asks, for as long as the process lives.</summary>
    internal static async Task KeepAsync(string path)
    {
        using var door = new Socket(AddressFamily.Unix, SocketType.Stream, ProtocolType.Unspecified);
        door.Bind(new UnixDomainSocketEndPoint(path));
        door.Listen();
        Console.WriteLine("Lives can be had.");
        while (true)
        {
            var asks = await door.AcceptAsync();
            _ = Task.Run(() => AnswerAsync(asks));
        }
    }

    private static async Task AnswerAsync(Socket socket)
    {
        await using var stream = new NetworkStream(socket, ownsSocket: true);
        using var reader = new StreamReader(stream);
        await using var writer = new StreamWriter(stream) { AutoFlush = true };
        if (await reader.ReadLineAsync() is not { } line)
            return;
        var life = new Life(JsonSerializer.Deserialize<string[]>(line) ?? []);
        try
        {
            await writer.WriteLineAsync(await life.AddressAsync());
        }
        catch (InvalidOperationException e)
        {
            await writer.WriteLineAsync($"! {e.Message}");
            return;
        }
        var said = await reader.ReadLineAsync();
        await life.EndAsync();
        if (said is not null)
            await writer.WriteLineAsync("ended");
    }
}
