using System.Collections.Concurrent;
using System.Net;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Authentication;
using System.Text;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Service.Host.Wire;

namespace Nailcrow.Service.Intake.Syslog;

/// <summary>Syslog over UDP (RFC 5426), TCP (RFC 6587: octet counting, and lines that end with LF) and TLS (RFC 5425).</summary>
internal sealed class SyslogListener(
    IntakeSettings settings,
    Reception reception,
    TimeProvider time,
    ILogger<SyslogListener> log,
    TlsCertificate? certificate = null
) : BackgroundService
{
    // Beyond that somebody is holding connections open, not sending logs.
    private const int MostConnections = 1_000;

    // Of these, one address holds so many: a relay opens a few, whoever opens hundreds shuts nobody else out.
    private const int MostOfOne = 100;

    // Both sides know each other within this time, or never.
    private static readonly TimeSpan HandshakeAtMost = TimeSpan.FromSeconds(10);

    // A sender that is silent for so long has gone without saying so.
    private static readonly TimeSpan SilentAtMost = TimeSpan.FromMinutes(10);

    // A site that loses power sends its lines within a second; the kernel holds them until they are read.
    private const int DatagramBuffer = 8 * 1024 * 1024;

    // A port that another program holds, or a network that was taken away, is there again in a moment.
    private static readonly TimeSpan AgainAfter = TimeSpan.FromSeconds(5);

    private readonly ConcurrentDictionary<IPAddress, int> _held = new();
    private int _connections;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (settings.SyslogPort is not { } port)
            return;
        while (!stoppingToken.IsCancellationRequested)
            try
            {
                await ListenAsync(IPAddress.Parse(settings.SyslogAddress), port, stoppingToken);
            }
            catch (Exception e) when (e is SocketException or ObjectDisposedException or IOException)
            {
                log.LogError(e, "Syslog is not listened for on port {Port}; tried again in {Seconds} s", port, AgainAfter.TotalSeconds);
                await Task.Delay(AgainAfter, time, stoppingToken);
            }
    }

    /// <summary>Until the service stops, or one of the two ways ends; both are then begun again.</summary>
    private async Task ListenAsync(IPAddress address, int port, CancellationToken stopping)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        using var tcp = new TcpListener(address, port);
        tcp.Start();
        var bound = ((IPEndPoint)tcp.LocalEndpoint).Port;
        using var udp = new Socket(address.AddressFamily, SocketType.Dgram, ProtocolType.Udp) { ReceiveBufferSize = DatagramBuffer };
        udp.Bind(new IPEndPoint(address, bound));
        log.LogInformation("Syslog is listened for on {Address}:{Port}, UDP and TCP", address, bound);
        using var tls = settings.SyslogTlsPort is { } secured ? new TcpListener(address, secured) : null;
        tls?.Start();
        if (tls is not null)
            log.LogInformation("Syslog is listened for over TLS on {Endpoint}", tls.LocalEndpoint);
        Task[] ways =
        [
            DatagramsAsync(udp, either.Token),
            ConnectionsAsync(tcp, false, either.Token),
            .. tls is null ? Array.Empty<Task>() : [ConnectionsAsync(tls, true, either.Token)],
        ];
        await Task.WhenAny(ways);
        await either.CancelAsync();
        await Task.WhenAll(ways);
    }

    private async Task DatagramsAsync(Socket udp, CancellationToken ct)
    {
        var buffer = new byte[64 * 1024];
        var from = new SocketAddress(udp.AddressFamily);
        var any = new IPEndPoint(udp.AddressFamily == AddressFamily.InterNetwork ? IPAddress.Any : IPAddress.IPv6Any, 0);
        while (!ct.IsCancellationRequested)
            try
            {
                var length = await udp.ReceiveFromAsync(buffer, SocketFlags.None, from, ct);
                reception.Offer(Line(buffer.AsSpan(0, length), ((IPEndPoint)any.Create(from)).Address));
            }
            catch (SocketException e)
            {
                log.LogWarning(e, "A datagram could not be received");
            }
            catch (OperationCanceledException)
            {
                return;
            }
    }

    private async Task ConnectionsAsync(TcpListener tcp, bool overTls, CancellationToken ct)
    {
        while (!ct.IsCancellationRequested)
            try
            {
                // A sender that goes while it is being let in is its own trouble; a listener that fails again and again is begun anew.
                var client = await tcp.AcceptTcpClientAsync(ct);
                var sender = ((IPEndPoint?)client.Client.RemoteEndPoint)?.Address ?? IPAddress.None;
                if (Comes(sender))
                    _ = ConnectionAsync(client, sender, overTls, ct);
                else
                {
                    client.Dispose();
                    Goes(sender);
                }
            }
            catch (OperationCanceledException)
            {
                return;
            }
    }

    /// <returns>False where there are too many, of it or of all.</returns>
    private bool Comes(IPAddress sender) =>
        Interlocked.Increment(ref _connections) <= MostConnections & _held.AddOrUpdate(sender, 1, (_, held) => held + 1) <= MostOfOne;

    private void Goes(IPAddress sender)
    {
        Interlocked.Decrement(ref _connections);
        if (_held.AddOrUpdate(sender, 0, (_, held) => held - 1) <= 0)
            _held.TryRemove(new KeyValuePair<IPAddress, int>(sender, 0));
    }

    private async Task ConnectionAsync(TcpClient client, IPAddress sender, bool overTls, CancellationToken ct)
    {
        try
        {
            using (client)
            {
                await using var stream = overTls ? await SecuredAsync(client.GetStream(), ct) : client.GetStream();
                await foreach (var frame in SyslogFrames.ReadAsync(stream, SilentAtMost, ct))
                    // Waits until it is on disk, so that a sender that is too fast is slowed by its own connection.
                    await reception.KeepAsync(Line(frame, sender), ct);
            }
        }
        catch (Exception e)
            when (e is IOException or InvalidDataException or OperationCanceledException or SocketException or AuthenticationException)
        {
            if (e is InvalidDataException or AuthenticationException)
                log.LogWarning("A syslog connection was closed: {Reason}", e.Message);
        }
        finally
        {
            Goes(sender);
        }
    }

    private async Task<Stream> SecuredAsync(NetworkStream open, CancellationToken ct)
    {
        var shown = certificate ?? throw new InvalidOperationException("Syslog over TLS was begun without a certificate.");
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(ct);
        patience.CancelAfter(HandshakeAtMost);
        var secured = new SslStream(open);
        await secured.AuthenticateAsServerAsync(
            new SslServerAuthenticationOptions
            {
                ServerCertificateContext = shown.Shown(),
                EnabledSslProtocols = SslProtocols.Tls12 | SslProtocols.Tls13,
            },
            patience.Token
        );
        return secured;
    }

    private Incoming Line(ReadOnlySpan<byte> bytes, IPAddress from)
    {
        var now = time.GetUtcNow();
        var text = Encoding.UTF8.GetString(bytes[..Math.Min(bytes.Length, SyslogMessage.MostChars)]);
        return new(
            Guid.CreateVersion7(now),
            now,
            "syslog",
            from.IsIPv4MappedToIPv6 ? from.MapToIPv4().ToString() : from.ToString(),
            text.Replace('\0', '·').TrimEnd('\r', '\n')
        );
    }
}
