using System.Net;
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
        IPNetwork.Parse("255.255.255.255/32"),
    ];

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
        return IPAddress.IsLoopback(address) && _ownPorts.Contains(port) ? $"{address}:{port} is Nailcrow itself." : null;
    }

    /// <summary>Connects only after the name was looked up and its address found allowed, so that no name can lead elsewhere afterwards.</summary>
    public async ValueTask<Stream> ConnectAsync(SocketsHttpConnectionContext context, CancellationToken ct)
    {
        var (host, port) = (context.DnsEndPoint.Host, context.DnsEndPoint.Port);
        var addresses = IPAddress.TryParse(host, out var literal) ? [literal] : await Dns.GetHostAddressesAsync(host, ct);
        string? problem = null;
        foreach (var address in addresses)
        {
            if ((problem = Problem(address, port)) is not null)
                continue;
            var socket = new Socket(address.AddressFamily, SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
            try
            {
                await socket.ConnectAsync(address, port, ct);
                return new NetworkStream(socket, ownsSocket: true);
            }
            catch
            {
                socket.Dispose();
                throw;
            }
        }
        throw new ForbiddenAddressException(problem ?? $"{host} has no address.");
    }
}
