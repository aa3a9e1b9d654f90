using System.Net.Sockets;
using System.Text;

namespace Nailcrow.Bench;

/// <summary>HTTP/1.1 on a bare socket: on a small machine the usual client would be half of what is measured.</summary>
internal sealed class LeanClient(TcpClient tcp, string head) : IAsyncDisposable
{
    private readonly byte[] _answer = new byte[64 * 1024];

    public static async Task<LeanClient> ConnectAsync(Uri service, string path, string token)
    {
        var tcp = new TcpClient { NoDelay = true };
        await tcp.ConnectAsync(service.Host, service.Port);
        return new(
            tcp,
            $"POST {path} HTTP/1.1\r\nHost: {service.Authority}\r\nAuthorization: Bearer {token}\r\nContent-Type: application/json\r\nContent-Length: "
        );
    }

    /// <summary>Returns once the whole answer is here, and throws unless it was 200.</summary>
    public async Task PostAsync(string body)
    {
        var stream = tcp.GetStream();
        await stream.WriteAsync(Encoding.ASCII.GetBytes($"{head}{body.Length}\r\n\r\n{body}"));
        for (var read = 0; ; )
        {
            var some = await stream.ReadAsync(_answer.AsMemory(read));
            if (some == 0)
                throw new IOException("The service closed the connection before it had answered.");
            read += some;
            if (IsWhole(_answer.AsSpan(0, read)))
            {
                if (!_answer.AsSpan(0, read).StartsWith("HTTP/1.1 200"u8))
                    throw new InvalidOperationException(Encoding.UTF8.GetString(_answer, 0, read));
                return;
            }
        }
    }

    public ValueTask DisposeAsync()
    {
        tcp.Dispose();
        return ValueTask.CompletedTask;
    }

    private static bool IsWhole(ReadOnlySpan<byte> answer)
    {
        var end = answer.IndexOf("\r\n\r\n"u8);
        if (end < 0)
            return false;
        var headers = answer[..end];
        var length = headers.IndexOf("Content-Length: "u8);
        if (length < 0)
            return answer.EndsWith("\r\n0\r\n\r\n"u8);
        var digits = headers[(length + 16)..];
        var stop = digits.IndexOf((byte)'\r');
        return answer.Length - end - 4 >= int.Parse(stop < 0 ? digits : digits[..stop], System.Globalization.CultureInfo.InvariantCulture);
    }
}
