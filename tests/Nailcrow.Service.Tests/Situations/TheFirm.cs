using Nailcrow.Client;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The people and the service of all stories. Each story has a machine of its own, and the service is started anew in its middle.</summary>
public sealed class TheFirm : IAsyncLifetime
{
    private readonly Dictionary<string, NailcrowClient> _signedIn = [];
    private RunningService? _first;
    private RunningService? _running;
    private int _machines;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private RunningService Service => _running ?? throw new InvalidOperationException("Not started yet.");

    public async ValueTask InitializeAsync() => _running = _first = await RunningService.StartPeopledAsync();

    public async Task<NailcrowClient> AsAsync(string name)
    {
        if (!_signedIn.TryGetValue(name, out var client))
            _signedIn[name] = client = await Service.SignInAsync(name);
        return client;
    }

    /// <summary>The interface itself, for what the client would not ask.</summary>
    public Task<HttpClient> HttpAsync(string name) => Service.HttpAsync(name);

    /// <summary>Where all that is kept lies.</summary>
    public string Folder => Service.Folder;

    public int NextMachine() => ++_machines;

    /// <summary>The power fails, or a release is put in: whoever is signed in signs in anew.</summary>
    public async Task StartsAnewAsync()
    {
        var before = Service;
        _running = await before.StartsAnewAsync();
        if (!ReferenceEquals(before, _first))
            await before.DisposeAsync();
        _signedIn.Clear();
        _running.NotRestartedBecause = null;
    }

    public async ValueTask DisposeAsync()
    {
        if (!ReferenceEquals(_running, _first))
            await Service.DisposeAsync();
        if (_first is not null)
            await _first.DisposeAsync();
    }
}

[CollectionDefinition(Name)]
public sealed class Stories : ICollectionFixture<TheFirm>
{
    public const string Name = "Stories";
}
