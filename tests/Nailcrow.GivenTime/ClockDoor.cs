using System.Globalization;
using System.Net.Sockets;

namespace Nailcrow.GivenTime;

/// <summary>Where a test says how much time has passed: a length of time a line ("02:00:00"), answered with the time it is now.</summary>
public static class ClockDoor
{
    public static void Open(string path, MovedTime time)
    {
        var door = new Socket(AddressFamily.Unix, SocketType.Stream, ProtocolType.Unspecified);
        door.Bind(new UnixDomainSocketEndPoint(path));
        door.Listen();
        _ = Task.Run(async () =>
        {
            while (true)
                await AnswerAsync(await door.AcceptAsync(), time);
        });
    }

    /// <summary>Has time pass for the service that listens at this socket.</summary>
    /// <returns>What time it is there now.</returns>
    public static async Task<DateTimeOffset> PassAsync(string path, TimeSpan span)
    {
        using var socket = new Socket(AddressFamily.Unix, SocketType.Stream, ProtocolType.Unspecified);
        await socket.ConnectAsync(new UnixDomainSocketEndPoint(path));
        await using var stream = new NetworkStream(socket);
        await using var writer = new StreamWriter(stream) { AutoFlush = true };
        using var reader = new StreamReader(stream);
        await writer.WriteLineAsync(span.ToString("c", CultureInfo.InvariantCulture));
        return DateTimeOffset.Parse(
            await reader.ReadLineAsync() ?? throw new InvalidOperationException("The service has no clock that can be moved."),
            CultureInfo.InvariantCulture
        );
    }

    private static async Task AnswerAsync(Socket socket, MovedTime time)
    {
        await using var stream = new NetworkStream(socket, ownsSocket: true);
        using var reader = new StreamReader(stream);
        await using var writer = new StreamWriter(stream) { AutoFlush = true };
        while (await reader.ReadLineAsync() is { } line)
        {
            time.Pass(TimeSpan.Parse(line, CultureInfo.InvariantCulture));
            await writer.WriteLineAsync(time.GetUtcNow().ToString("O", CultureInfo.InvariantCulture));
        }
    }
}
