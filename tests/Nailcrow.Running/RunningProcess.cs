using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text.RegularExpressions;

namespace Nailcrow.Running;

/// <summary>A program started as a user starts it, whose words can be waited for.</summary>
public sealed class RunningProcess : IAsyncDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(4);

    private readonly Process _process;
    private readonly ConcurrentQueue<string> _said = new();
    private readonly SemaphoreSlim _news = new(0);
    private int _disposed;

    private RunningProcess(Process process)
    {
        _process = process;
        process.OutputDataReceived += (_, line) => Hear(line.Data);
        process.ErrorDataReceived += (_, line) => Hear(line.Data);
    }

    public int Id => _process.Id;

    public string Said => string.Join('\n', _said);

    public static RunningProcess Start(
        string assembly,
        IEnumerable<string> arguments,
        string? folder = null,
        IReadOnlyCollection<KeyValuePair<string, string>>? environment = null,
        IReadOnlyList<string>? through = null
    )
    {
        string[] words = [.. through ?? [], "dotnet", assembly, .. arguments];
        var start = new ProcessStartInfo(words[0], words[1..])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            WorkingDirectory = folder ?? Built.Root,
        };
        foreach (var (name, value) in environment ?? [])
            start.Environment[name] = value;
        var running = new RunningProcess(new Process { StartInfo = start });
        running._process.Start();
        running._process.BeginOutputReadLine();
        running._process.BeginErrorReadLine();
        return running;
    }

    /// <summary>Waits until it has said something of this form.</summary>
    public async Task<Match> HearsAsync(string pattern)
    {
        using var patience = new CancellationTokenSource(Patience);
        while (true)
        {
            if (_said.Select(line => Regex.Match(line, pattern)).FirstOrDefault(m => m.Success) is { } match)
                return match;
            if (_process.HasExited)
                throw new InvalidOperationException($"It ended with {_process.ExitCode} and never said '{pattern}':\n{Said}");
            try
            {
                await _news.WaitAsync(TimeSpan.FromMilliseconds(200), patience.Token);
            }
            catch (OperationCanceledException)
            {
                throw new TimeoutException($"It never said '{pattern}':\n{Said}");
            }
        }
    }

    public bool HasExited => _process.HasExited;

    /// <summary>Waits until it has ended by itself.</summary>
    /// <returns>What it ended with.</returns>
    public async Task<int> EndsAsync()
    {
        using var patience = new CancellationTokenSource(Patience);
        await _process.WaitForExitAsync(patience.Token);
        return _process.ExitCode;
    }

    /// <summary>SIGTERM, as an operator or the system stops a service; it has five seconds of a processor that may not be there for a while.</summary>
    public async Task StopAsync()
    {
        using (var kill = Process.Start("bash", ["-c", $"kill -TERM {_process.Id}"]))
            await kill.WaitForExitAsync();
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        try
        {
            await _process.WaitForExitAsync(patience.Token);
        }
        catch (OperationCanceledException)
        {
            throw new TimeoutException($"It was asked to stop, and had not after half a minute:\n{Said}");
        }
    }

    /// <summary>SIGKILL: no chance to tidy up.</summary>
    public async Task KillAsync()
    {
        if (!_process.HasExited)
            _process.Kill(entireProcessTree: true);
        await _process.WaitForExitAsync();
    }

    public async ValueTask DisposeAsync()
    {
        if (Interlocked.Exchange(ref _disposed, 1) == 1)
            return;
        await KillAsync();
        _process.Dispose();
        _news.Dispose();
    }

    private void Hear(string? line)
    {
        if (line is null)
            return;
        _said.Enqueue(line);
        _news.Release();
    }
}
