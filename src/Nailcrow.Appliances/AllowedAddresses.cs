using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;

namespace Nailcrow.Appliances;

/// <summary>A management address leads where nothing may be asked.</summary>
public sealed class ForbiddenAddressException(string message) : IOException(message);

/// <summary>
/// Where machines may be asked at all. A management address is typed by people and imported from files, so it must not lead
/// the service to itself, or into networks that are none of its business.
/// </summary>
public sealed class AllowedAddresses(IReadOnlyList<IPNetwork> networks)
{
    private static readonly IPNetwork[] Never =
    [
        IPNetwork.Parse("169.254.0.0/16"),
        IPNetwork.Parse("fe80::/10"), // link-local: clouds keep their secrets there
        IPNetwork.Parse("224.0.0.0/4"),
        IPNetwork.Parse("ff00::/8"), // multicast
        IPNetwork.Parse("0.0.0.0/8"),
        IPNetwork.Parse("::/128"),
        IPNetwork.Parse("240.0.0.0/4"), // reserved, and the broadcast address
        IPNetwork.Parse("192.0.0.0/24"), // protocol assignments
        IPNetwork.Parse("198.18.0.0/15"), // benchmarks
        IPNetwork.Parse("fec0::/10"), // site-local, long given up
        IPNetwork.Parse("64:ff9b::/96"),
        IPNetwork.Parse("64:ff9b:1::/48"),
        IPNetwork.Parse("2002::/16"),
        IPNetwork.Parse("2001::/32"), // IPv4 addresses in other clothes: what is within them would not be looked at
    ];

    // Shared by a carrier and its customers (RFC 6598); nobody's machines are there unless somebody says so.
    private static readonly IPNetwork Shared = IPNetwork.Parse("100.64.0.0/10");

    // Addresses of a machine change seldom, and each call asks.
    private static readonly TimeSpan OwnKnownFor = TimeSpan.FromSeconds(30);

    private (long At, HashSet<IPAddress> All) _own = (long.MinValue, []);

    private IReadOnlyCollection<int> _ownPorts = [];

    /// <summary>The ports the service itself listens at; on this machine's own addresses they are not asked.</summary>
    public void OwnPorts(IReadOnlyCollection<int> ports) => _ownPorts = ports;

    /// <summary>Why an address is not asked; null where it may be.</summary>
    public string? Problem(IPAddress given, int port)
    {
        var address = given.IsIPv4MappedToIPv6 ? given.MapToIPv4() : given;
        if (Never.Any(n => n.Contains(address)))
            return $"{address} is no address that may be asked.";
        if (networks.Count > 0 && !networks.Any(n => n.Contains(address)))
            return $"{address} is in none of the networks that machines may be in ({string.Join(", ", networks)}).";
        if (networks.Count == 0 && Shared.Contains(address))
            return $"{address} is shared by many; say that machines are there (Nailcrow:Link:AllowedNetworks).";
        return _ownPorts.Contains(port) && (IPAddress.IsLoopback(address) || Own().Contains(address))
            ? $"{address}:{port} is Nailcrow itself."
            : null;
    }

    /// <summary>Every address of this machine, by whatever interface.</summary>
    private HashSet<IPAddress> Own()
    {
        if (_own.All.Count == 0 || Environment.TickCount64 - _own.At > OwnKnownFor.TotalMilliseconds)
            _own = (
                Environment.TickCount64,
                [
                    .. NetworkInterface
                        .GetAllNetworkInterfaces()
                        .SelectMany(i => i.GetIPProperties().UnicastAddresses)
                        .Select(a => a.Address.IsIPv4MappedToIPv6 ? a.Address.MapToIPv4() : a.Address),
                ]
            );
        return _own.All;
    }

    /// <summary>For a client that speaks HTTP; see <see cref="ConnectAsync(string, int, CancellationToken)"/>.</summary>
    public async ValueTask<Stream> ConnectAsync(SocketsHttpConnectionContext context, CancellationToken ct) =>
        new NetworkStream(await ConnectAsync(context.DnsEndPoint.Host, context.DnsEndPoint.Port, ct), ownsSocket: true);

    /// <summary>Connects only after the name was looked up and its address found allowed, so that no name can lead elsewhere afterwards.</summary>
    /// <exception cref="ForbiddenAddressException">It leads where nothing may be asked, or nowhere.</exception>
    public async Task<Socket> ConnectAsync(string host, int port, CancellationToken ct)
    {
        var addresses = IPAddress.TryParse(host, out var literal) ? [literal] : await Dns.GetHostAddressesAsync(host, ct);
        (string? problem, SocketException? failed) = (null, null);
        foreach (var address in addresses)
        {
            if ((problem = Problem(address, port)) is not null)
                continue;
            var socket = new Socket(address.AddressFamily, SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
            try
            {
                await socket.ConnectAsync(address, port, ct);
                return socket;
            }
            catch (SocketException e)
            {
                socket.Dispose();
                failed = e; // it may have another address that answers
            }
            catch
            {
                socket.Dispose();
                throw;
            }
        }
        throw failed as Exception ?? new ForbiddenAddressException(problem ?? $"{host} has no address.");
    }
}
