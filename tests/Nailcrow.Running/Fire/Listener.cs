using System.Globalization;

namespace Nailcrow.Running.Fire;

/// <summary>Somebody who listens to the journal, and after each cut goes on where they were, at whichever node.</summary>
public sealed class Listener(Doors doors, string token)
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(200);

    // A node that is there says something each second.
    private static readonly TimeSpan SilentAtMost = TimeSpan.FromSeconds(5);

    /// <summary>Positions in the order in which they were heard.</summary>
    public List<long> Heard { get; } = [];

    /// <summary>What they had heard of when they began.</summary>
    public long From { get; private set; } = -1;

    public int Cuts { get; private set; }

    private long Last => Heard is [.., var last] ? last : From;

    public async Task ListenAsync(CancellationToken ct)
    {
        while (!ct.IsCancellationRequested)
        {
            try
            {
                await using var stream = await doors.StreamAsync(From < 0 ? "api/live" : $"api/live?after={Last}", token, ct);
                await ReadAsync(new StreamReader(stream), ct);
            }
            catch (Exception e) when (e is HttpRequestException or IOException or OperationCanceledException)
            {
                // Cut.
            }
            Cuts++;
            await Task.Delay(Pause, ct).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    /// <summary>Events as text (HTML Living Standard, 9.2): the kind, the position as its id, an empty line.</summary>
    private async Task ReadAsync(StreamReader lines, CancellationToken ct)
    {
        var kind = "";
        while (true)
        {
            using var silence = CancellationTokenSource.CreateLinkedTokenSource(ct);
            silence.CancelAfter(SilentAtMost);
            if (await lines.ReadLineAsync(silence.Token) is not { } line)
                return;
            if (line.StartsWith("event: ", StringComparison.Ordinal))
                kind = line["event: ".Length..];
            else if (line.StartsWith("id: ", StringComparison.Ordinal))
                Hear(kind, long.Parse(line.AsSpan("id: ".Length), CultureInfo.InvariantCulture));
        }
    }

    private void Hear(string kind, long position)
    {
        if (From < 0)
            From = position; // the first says where the journal is
        else if (kind == "entry")
            Heard.Add(position);
    }
}
