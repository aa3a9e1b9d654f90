namespace Nailcrow.Running.Fire;

/// <summary>
/// Where nodes are to be found just now, as a proxy knows it that asks each whether it takes calls; whoever is sent away by one asks another.
/// </summary>
public sealed class Doors(IReadOnlyList<RunningService> nodes)
{
    private static readonly TimeSpan AskedEvery = TimeSpan.FromMilliseconds(500);

    private IReadOnlyList<Uri> _ready = [.. nodes.Select(n => n.Address)];

    // Longer than a database that is started anew takes, and shorter than a node sleeps.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(8);

    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(100);

    private readonly HttpClient _http = new(new SocketsHttpHandler { ConnectTimeout = TimeSpan.FromSeconds(2) })
    {
        Timeout = Timeout.InfiniteTimeSpan,
    };

    /// <summary>The address of some node, another each time.</summary>
    public Uri Any()
    {
        var ready = _ready;
        return ready[Random.Shared.Next(ready.Count)];
    }

    /// <summary>Asks all nodes whether they take calls, until it is told to stop.</summary>
    public async Task WatchAsync(CancellationToken ct)
    {
        while (!ct.IsCancellationRequested)
        {
            var asked = nodes.Select(n => n.Address).ToList();
            var answers = await Task.WhenAll(asked.Select(at => IsReadyAsync(at, ct)));
            var ready = asked.Where((_, i) => answers[i]).ToList();
            _ready = ready.Count > 0 ? ready : asked; // where none is, whoever asks is told why
            await Task.Delay(AskedEvery, ct).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    private async Task<bool> IsReadyAsync(Uri node, CancellationToken ct)
    {
        try
        {
            using var soon = CancellationTokenSource.CreateLinkedTokenSource(ct);
            soon.CancelAfter(TimeSpan.FromSeconds(2));
            using var answer = await _http.GetAsync(new Uri(node, "health/ready"), soon.Token);
            return answer.IsSuccessStatusCode;
        }
        catch (Exception e) when (e is HttpRequestException or IOException or OperationCanceledException)
        {
            return false;
        }
    }

    /// <summary>Sends the same again, to whichever node, until one has answered that it was taken.</summary>
    /// <param name="make">The message, made anew for each try.</param>
    /// <exception cref="InvalidOperationException">It was refused for what it says: that is nobody's bad day.</exception>
    public async Task SendAsync(Func<Uri, HttpRequestMessage> make, CancellationToken ct)
    {
        while (true)
        {
            ct.ThrowIfCancellationRequested();
            try
            {
                using var soon = CancellationTokenSource.CreateLinkedTokenSource(ct);
                soon.CancelAfter(Patience);
                using var message = make(Any());
                using var answer = await _http.SendAsync(message, soon.Token);
                if (answer.IsSuccessStatusCode)
                    return;
                if ((int)answer.StatusCode < 500 && (int)answer.StatusCode != 429)
                    throw new InvalidOperationException(
                        $"{message.RequestUri}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync(ct)}"
                    );
                if ((int)answer.StatusCode is not (503 or 429))
                    throw new InvalidOperationException(
                        $"A bad day is told in plain words and never as a fault of ours: {await answer.Content.ReadAsStringAsync(ct)}"
                    );
            }
            catch (Exception e)
                when (e is HttpRequestException or IOException || (e is OperationCanceledException && !ct.IsCancellationRequested))
            {
                // Cut, killed or asleep: what became of it is not known, so the same is sent again.
            }
            await Task.Delay(Pause, ct);
        }
    }

    public Task<Stream> StreamAsync(string path, string token, CancellationToken ct) => OpenAsync(new Uri(Any(), path), token, ct);

    private async Task<Stream> OpenAsync(Uri at, string token, CancellationToken ct)
    {
        var message = new HttpRequestMessage(HttpMethod.Get, at);
        message.Headers.Authorization = new("Bearer", token);
        using var soon = CancellationTokenSource.CreateLinkedTokenSource(ct);
        soon.CancelAfter(Patience);
        var answer = await _http.SendAsync(message, HttpCompletionOption.ResponseHeadersRead, soon.Token);
        return await answer.EnsureSuccessStatusCode().Content.ReadAsStreamAsync(ct);
    }
}
