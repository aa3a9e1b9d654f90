using System.Net.Sockets;
using System.Text.Json;
using Nailcrow.GivenTime;
using Nailcrow.ManyLives;

namespace Nailcrow.Running;

/// <summary>A process in which the service can be had many times over, one after the other and side by side.</summary>
internal sealed class WarmProcess
{
    /// <summary>Where tests work with it.</summary>
    public static readonly WarmProcess First = new();

    /// <summary>
    /// Where it comes up again: another process, which remembers nothing of what was done in the first.
    /// </summary>
    public static readonly WarmProcess Again = new();

    private readonly Lazy<Task<string>> _socket = new(StartAsync);

    private WarmProcess() { }

    /// <summary>Begins a life of the service with these arguments.</summary>
    public async Task<WarmLife> BeginAsync(IEnumerable<string> arguments)
    {
        var socket = new Socket(AddressFamily.Unix, SocketType.Stream, ProtocolType.Unspecified);
        await socket.ConnectAsync(new UnixDomainSocketEndPoint(await _socket.Value));
        var life = new WarmLife(this, socket);
        var answer = await life.AskAsync(JsonSerializer.Serialize(arguments));
        return Uri.TryCreate(answer, UriKind.Absolute, out var address)
            ? life.At(address)
            : throw new InvalidOperationException($"The service did not begin: {answer}");
    }

    private static async Task<string> StartAsync()
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-lives-").FullName;
        var socket = Path.Combine(folder, "lives");
        var process = RunningProcess.Start(
            Built.Service,
            [],
            RunningService.Home,
            [
                // The clock's first: the other does not come back from being begun.
                new("DOTNET_STARTUP_HOOKS", $"{typeof(TimeIsGiven).Assembly.Location}:{typeof(LivesDoor).Assembly.Location}"),
                new("ASPNETCORE_HOSTINGSTARTUPASSEMBLIES", typeof(TimeIsGiven).Assembly.GetName().Name!),
                new(LivesDoor.Variable, socket),
                new("DOTNET_TieredPGO", "0"),
            ]
        );
        AppDomain.CurrentDomain.ProcessExit += (_, _) =>
        {
            process.DisposeAsync().AsTask().Wait();
            Directory.Delete(folder, recursive: true);
        };
        await process.HearsAsync("Lives can be had");
        return socket;
    }
}

/// <summary>One life of the service in a process of many.</summary>
internal sealed class WarmLife : IAsyncDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(4);

    private readonly NetworkStream _stream;
    private readonly StreamReader _reader;
    private readonly StreamWriter _writer;

    public WarmLife(WarmProcess process, Socket socket)
    {
        In = process;
        _stream = new NetworkStream(socket, ownsSocket: true);
        (_reader, _writer) = (new StreamReader(_stream), new StreamWriter(_stream) { AutoFlush = true });
    }

    /// <summary>The process that it is one life of.</summary>
    public WarmProcess In { get; }

    public Uri Address { get; private set; } = new("about:blank");

    public bool HasEnded { get; private set; }

    public WarmLife At(Uri address)
    {
        Address = address;
        return this;
    }

    public async Task<string?> AskAsync(string line)
    {
        await _writer.WriteLineAsync(line);
        return await _reader.ReadLineAsync().WaitAsync(Patience);
    }

    /// <summary>It is asked to stop as by SIGTERM, and has.</summary>
    public async Task EndAsync()
    {
        if (!HasEnded && await AskAsync("end") != "ended")
            throw new InvalidOperationException("The service was asked to stop, and did not say that it had.");
        HasEnded = true;
    }

    public async ValueTask DisposeAsync()
    {
        await EndAsync();
        _reader.Dispose();
        await _writer.DisposeAsync();
        await _stream.DisposeAsync();
    }
}
