using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Nailcrow.Running;

/// <summary>How an answer gets lost between a service that gave it and whoever asked.</summary>
public enum Loss
{
    /// <summary>The line is cut before a word of it came through.</summary>
    Cut,

    /// <summary>The line is cut in the middle of it.</summary>
    Half,

    /// <summary>Something between says in its own words that nobody answers.</summary>
    Gateway,
}

/// <summary>
/// A line to a service that loses answers: what is asked comes through, and is done. It stays at its address wherever the service goes.
/// </summary>
public sealed class LossyLine : IDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private int _left;

    public LossyLine(Uri to)
    {
        To = to;
        _listener.Start();
        _ = AcceptAsync();
    }

    public Uri To { get; set; }

    public Uri Address => new($"http://127.0.0.1:{((IPEndPoint)_listener.LocalEndpoint).Port}");

    private Loss Loss { get; set; }

    /// <summary>How many answers were lost since it was last told to lose some.</summary>
    public int Lost { get; private set; }

    /// <summary>The first answer on each of the next so many connections is lost.</summary>
    public void Loses(int answers, Loss how) => (_left, Loss, Lost) = (answers, how, 0);

    private async Task AcceptAsync()
    {
        try
        {
            while (true)
                _ = CarryAsync(await _listener.AcceptTcpClientAsync());
        }
        catch (Exception e) when (e is SocketException or ObjectDisposedException)
        {
            // The test is over.
        }
    }

    private async Task CarryAsync(TcpClient asking)
    {
        using var _ = asking;
        using var service = new TcpClient();
        try
        {
            await service.ConnectAsync(To.Host, To.Port);
            var (near, far) = (asking.GetStream(), service.GetStream());
            var asked = near.CopyToAsync(far);
            if (Interlocked.Decrement(ref _left) >= 0)
                await LoseAsync(near, far);
            else
                await Task.WhenAny(asked, far.CopyToAsync(near));
        }
        catch (Exception e) when (e is SocketException or IOException)
        {
            // One of both is gone, and with it the line.
        }
    }

    private async Task LoseAsync(NetworkStream near, NetworkStream far)
    {
        var answer = new byte[64 * 1024];
        var length = await far.ReadAsync(answer); // the service has done what was asked
        Lost++;
        ReadOnlyMemory<byte> passed = Loss switch
        {
            Loss.Cut => default,
            Loss.Half => answer.AsMemory(0, length - 1),
            Loss.Gateway => Encoding.ASCII.GetBytes(
                "HTTP/1.1 502 Bad Gateway\r\nContent-Type: text/html\r\nContent-Length: 12\r\nConnection: close\r\n\r\n<h1>502</h1>"
            ),
            _ => throw new InvalidOperationException($"{Loss} is no way to lose an answer."),
        };
        await near.WriteAsync(passed);
    }

    public void Dispose() => _listener.Dispose();
}
