using System.Collections.Concurrent;
using System.Net;
using Microsoft.AspNetCore.Connections;

namespace Nailcrow.Service.Host.Wire;

/// <summary>
/// How many connections one address holds at a time. Whoever opens more is turned away, and nobody else waits for it; the proxies that were
/// named speak for many.
/// </summary>
internal sealed class ConnectionsOfOne(IReadOnlyCollection<IPNetwork> proxies)
{
    // An office of fifty, each with a console on two devices and the six connections that a browser opens, sits behind one address.
    private const int Most = 600;

    private readonly ConcurrentDictionary<IPAddress, int> _held = new();

    public ConnectionDelegate Before(ConnectionDelegate next) =>
        async connection =>
        {
            if (connection.RemoteEndPoint is not IPEndPoint { Address: var address } || proxies.Any(p => p.Contains(address)))
            {
                await next(connection);
                return;
            }
            try
            {
                if (_held.AddOrUpdate(address, 1, (_, held) => held + 1) > Most)
                    connection.Abort(new ConnectionAbortedException($"{address} holds {Most} connections already."));
                else
                    await next(connection);
            }
            finally
            {
                // The last one to go takes the entry with it: an address is remembered for as long as it is here.
                if (_held.AddOrUpdate(address, 0, (_, held) => held - 1) <= 0)
                    _held.TryRemove(new KeyValuePair<IPAddress, int>(address, 0));
            }
        };
}
