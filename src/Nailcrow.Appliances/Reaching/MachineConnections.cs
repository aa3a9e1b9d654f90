using System.Collections.Concurrent;
using System.Net.Security;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Nailcrow.Core.Appliances.Reaching;

namespace Nailcrow.Appliances.Reaching;

/// <summary>
/// The connections to machines: per machine and trusted certificate, so that nothing goes over a connection that was opened while
/// another certificate was trusted. Management processors sign their certificates themselves; each is looked at by somebody once.
/// </summary>
internal sealed class MachineConnections(AllowedAddresses allowed) : IDisposable
{
    /// <summary>Which certificate the machine asked may show; see <see cref="MachineKey.Trusted"/>.</summary>
    public static readonly HttpRequestOptionsKey<string?> Trusted = new("Nailcrow.Trusted");

    private static readonly TimeSpan IdleFor = TimeSpan.FromMinutes(10);

    private readonly ConcurrentDictionary<(string Origin, string? Trusted), Line> _lines = new();
    private long _swept = Environment.TickCount64;

    public Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken ct)
    {
        var to = request.RequestUri ?? throw new InvalidOperationException("A call says where to.");
        request.Options.TryGetValue(Trusted, out var trusted);
        Sweep();
        return _lines.GetOrAdd((MachineAddress.Origin(to), trusted), key => new(allowed, key.Trusted)).SendAsync(request, ct);
    }

    /// <summary>There may be very many machines, and most are asked seldom.</summary>
    private void Sweep()
    {
        var now = Environment.TickCount64;
        var before = Interlocked.Read(ref _swept);
        if (now - before < IdleFor.TotalMilliseconds / 2 || Interlocked.CompareExchange(ref _swept, now, before) != before)
            return;
        foreach (var (key, line) in _lines)
            if (line.IsIdle(now, IdleFor) && _lines.TryRemove(key, out var old))
                old.Dispose(); // closes what is idle; an answer that is still being read is read to its end
    }

    public void Dispose()
    {
        foreach (var line in _lines.Values)
            line.Dispose();
    }

    private sealed class Line : IDisposable
    {
        private readonly HttpMessageInvoker _invoker;
        private readonly string? _trusted;
        private volatile ShownCertificate? _refused;
        private long _used = Environment.TickCount64;

        public Line(AllowedAddresses allowed, string? trusted)
        {
            _trusted = trusted;
            _invoker = new(
                new SocketsHttpHandler
                {
                    AllowAutoRedirect = false, // it could lead anywhere
                    ConnectCallback = allowed.ConnectAsync,
                    UseProxy = false,
                    UseCookies = false,
                    SslOptions = { RemoteCertificateValidationCallback = IsKnown },
                    // Four to ask by, one to listen: these processors are slow, and more at once makes them slower.
                    MaxConnectionsPerServer = 5,
                    PooledConnectionLifetime = TimeSpan.FromMinutes(5),
                }
            );
        }

        public bool IsIdle(long now, TimeSpan after) => now - Interlocked.Read(ref _used) > after.TotalMilliseconds;

        public async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken ct)
        {
            Interlocked.Exchange(ref _used, Environment.TickCount64);
            try
            {
                return await _invoker.SendAsync(request, ct);
            }
            catch (HttpRequestException e) when (e.HttpRequestError == HttpRequestError.SecureConnectionError && _refused is { } shown)
            {
                throw new UnknownCertificateException(shown, _trusted is not null);
            }
        }

        public void Dispose() => _invoker.Dispose();

        private bool IsKnown(object sender, X509Certificate? given, X509Chain? chain, SslPolicyErrors errors)
        {
            if (given is null)
                return false;
            var fingerprint = Convert.ToHexStringLower(SHA256.HashData(given.GetRawCertData()));
            if (_trusted is null ? errors == SslPolicyErrors.None : fingerprint == _trusted)
            {
                _refused = null; // what fails after this fails for another reason
                return true;
            }
            var shown = given as X509Certificate2 ?? X509CertificateLoader.LoadCertificate(given.GetRawCertData());
            _refused = new(fingerprint, shown.Subject, shown.NotBefore.ToUniversalTime(), shown.NotAfter.ToUniversalTime());
            return false;
        }
    }
}

/// <summary>Where a client's calls meet the connections, which outlive it.</summary>
internal sealed class MachineCalls(MachineConnections connections) : HttpMessageHandler
{
    protected override Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken) =>
        connections.SendAsync(request, cancellationToken);
}
