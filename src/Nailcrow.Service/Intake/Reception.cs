using System.Threading.Channels;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.Intake;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Intake;

/// <summary>
/// What just came in, on its way to the log. Whoever may wait for it to be kept waits; a datagram's sender cannot, so its
/// line waits here, and only a flood beyond what memory should hold is turned away, and counted.
/// </summary>
internal sealed class Reception(IntakeLog log, IntakeSorter sorter, JournalNews news, ILogger<Reception> complaints) : BackgroundService
{
    // Some 40 MB of lines: ten times what a site sends that loses power.
    private const int MostWaiting = 50_000;
    private const int MostAtOnce = 1_000;

    // A datagram's sender does not send again, so what came is tried until it is kept; whoever waits for it is told before long.
    private const int AttemptsForWhoWaits = 3;
    private static readonly TimeSpan BetweenAttempts = TimeSpan.FromSeconds(1);
    private static readonly TimeSpan BetweenAttemptsAtMost = TimeSpan.FromSeconds(10);

    private readonly Channel<Incoming> _waiting = Channel.CreateBounded<Incoming>(
        new BoundedChannelOptions(MostWaiting) { SingleReader = true }
    );
    private long _turnedAway;

    /// <summary>Datagrams that found no room since the start.</summary>
    public long TurnedAway => Interlocked.Read(ref _turnedAway);

    /// <summary>For what cannot wait, such as a datagram.</summary>
    public void Offer(Incoming incoming)
    {
        if (!_waiting.Writer.TryWrite(incoming))
            Interlocked.Increment(ref _turnedAway);
    }

    /// <summary>Returns once it is on disk.</summary>
    public async Task KeepAsync(Incoming incoming, CancellationToken ct)
    {
        await _waiting.Writer.WriteAsync(incoming, ct);
        await incoming.Kept.Task.WaitAsync(ct);
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            while (await _waiting.Reader.WaitToReadAsync(stoppingToken))
                await KeepAsync(Taken(), stoppingToken);
        }
        catch (OperationCanceledException)
        {
            // Stopping; what is here already is kept below.
        }
        _waiting.Writer.TryComplete();
        while (Taken() is { Count: > 0 } rest)
            await KeepAsync(rest, stoppingToken);
    }

    private List<Incoming> Taken()
    {
        var batch = new List<Incoming>();
        while (batch.Count < MostAtOnce && _waiting.Reader.TryRead(out var next))
            batch.Add(next);
        return batch;
    }

    private async Task KeepAsync(List<Incoming> batch, CancellationToken stopping)
    {
        for (var attempt = 1; ; attempt++)
            try
            {
                await log.KeepAsync(await sorter.SortAsync(batch, CancellationToken.None), CancellationToken.None);
                batch.ForEach(i => i.Kept.TrySetResult());
                news.RingAlerts();
                return;
            }
            catch (Exception e) when (StorageTroubles.Sentence(e) is null && batch.Count > 1)
            {
                foreach (var one in batch) // one of them cannot be kept, whatever it is; the others must not fall with it
                    await KeepAsync([one], stopping);
                return;
            }
            catch (Exception e)
            {
                if (attempt == AttemptsForWhoWaits)
                    batch.ForEach(i => i.Kept.TrySetException(e));
                if (attempt >= AttemptsForWhoWaits && (stopping.IsCancellationRequested || StorageTroubles.Sentence(e) is null))
                {
                    complaints.LogError(e, "{Count} messages could not be kept", batch.Count);
                    return;
                }
                await PauseAsync(attempt, stopping);
            }
    }

    private static async Task PauseAsync(int attempt, CancellationToken stopping)
    {
        var pause = BetweenAttempts * attempt;
        try
        {
            await Task.Delay(pause < BetweenAttemptsAtMost ? pause : BetweenAttemptsAtMost, stopping);
        }
        catch (OperationCanceledException)
        {
            // No time to wait: tried once more at once.
        }
    }
}

/// <summary>A message as it came, before anything is made of it.</summary>
/// <param name="Id">The event's own, where it has one, so that a repeat is recognised.</param>
/// <param name="Asset">The machine, where the way it came tells.</param>
/// <param name="Alert">What the event itself says; null where rules have to read the text.</param>
internal sealed record Incoming(
    Guid Id,
    DateTimeOffset ReceivedAt,
    string Via,
    string Sender,
    string Text,
    string? Asset = null,
    Core.Intake.Alert? Alert = null
)
{
    public TaskCompletionSource Kept { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);
}
