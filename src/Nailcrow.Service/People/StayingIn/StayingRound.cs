using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.StayingIn;

/// <summary>Looks at what is being answered, and ends what no longer counts; notes from time to time who was seen.</summary>
internal sealed class StayingRound(RunningCalls calls, Standings standings, Sessions sessions, ILogger<StayingRound> log)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(2);

    // What takes something away from whoever calls it is answered; five seconds are promised until the others are out.
    private static readonly TimeSpan ToAnswer = TimeSpan.FromSeconds(1);

    private static readonly TimeSpan AtTheEnd = TimeSpan.FromSeconds(1);

    // Nobody looks closer than to the minute at when a device was last seen.
    private const int RoundsBetweenNotes = 30;

    protected override async Task ExecuteAsync(CancellationToken stopping)
    {
        for (var round = 1; !stopping.IsCancellationRequested; round++)
            try
            {
                await standings.ChangesAsync(Every, stopping);
                await EndAsync(stopping);
                if (round % RoundsBetweenNotes == 0)
                    await NoteAsync(stopping);
            }
            catch (OperationCanceledException) when (stopping.IsCancellationRequested)
            {
                break;
            }
            catch (Exception e)
            {
                log.LogWarning(e, "Who is still in was not looked at; it is tried again in {Every}", Every);
            }
    }

    public override async Task StopAsync(CancellationToken ct)
    {
        await base.StopAsync(ct);
        try
        {
            // A slow disk must not hold up the end, which has five seconds; what is noted here is known to the minute anyway.
            await Task.Run(() => NoteAsync(ct), ct).WaitAsync(AtTheEnd, ct);
        }
        catch (Exception e)
        {
            log.LogWarning(e, "When everybody was last seen was not noted");
        }
    }

    private async Task EndAsync(CancellationToken ct)
    {
        foreach (var running in calls.All)
            if (
                !running.Stand.MayGoOnAs(await standings.OfAsync(running.Stand.Id, running.Stand.KeyHash, ct))
                && (running.Reads || running.LostFor(Environment.TickCount64) >= ToAnswer)
            )
                running.End();
    }

    private async Task NoteAsync(CancellationToken ct)
    {
        if (standings.TakeSeen() is { Count: > 0 } seen)
            await sessions.SeenAsync(seen, ct);
    }
}
