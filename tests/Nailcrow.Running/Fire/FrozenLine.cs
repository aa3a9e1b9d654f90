using System.Data.Common;
using System.Globalization;
using System.Net;
using System.Net.Sockets;

namespace Nailcrow.Running.Fire;

/// <summary>
/// A line between a node and its database that can stop carrying anything, without a word to either end: neither learns that the other
/// is not there, and what is on its way arrives late.
/// </summary>
public sealed class FrozenLine : IDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly DbConnectionStringBuilder _database;
    private volatile TaskCompletionSource _carries = new(TaskCreationOptions.RunContinuationsAsynchronously);

    /// <param name="database">How the database is reached without it.</param>
    public FrozenLine(string database)
    {
        _database = new() { ConnectionString = database };
        _carries.SetResult();
        _listener.Start();
        _ = AcceptAsync();
    }

    /// <summary>How the database is reached over it.</summary>
    public string Database
    {
        get
        {
            var over = new DbConnectionStringBuilder { ConnectionString = _database.ConnectionString };
            (over["Host"], over["Port"]) = ("127.0.0.1", ((IPEndPoint)_listener.LocalEndpoint).Port);
            return over.ConnectionString;
        }
    }

    public void Freeze() => _carries = new(TaskCreationOptions.RunContinuationsAsynchronously);

    public void Thaw() => _carries.TrySetResult();

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

    private async Task CarryAsync(TcpClient node)
    {
        using var _ = node;
        using var database = new TcpClient { NoDelay = true };
        node.NoDelay = true;
        try
        {
            await _carries.Task;
            await database.ConnectAsync($"{_database["Host"]}", int.Parse($"{_database["Port"]}", CultureInfo.InvariantCulture));
            await Task.WhenAny(PassAsync(node.GetStream(), database.GetStream()), PassAsync(database.GetStream(), node.GetStream()));
            await _carries.Task; // that one end is gone is nothing the other hears of meanwhile
        }
        catch (Exception e) when (e is SocketException or IOException)
        {
            // One of both is gone, and with it the line.
        }
    }

    private async Task PassAsync(NetworkStream from, NetworkStream to)
    {
        var some = new byte[64 * 1024];
        while (await from.ReadAsync(some) is var length and > 0)
        {
            await _carries.Task;
            await to.WriteAsync(some.AsMemory(0, length));
        }
    }

    public void Dispose()
    {
        Thaw();
        _listener.Dispose();
    }
}
