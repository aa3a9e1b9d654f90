using System.Threading.RateLimiting;
using Nailcrow.Service.People.StayingIn;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>Each call at the door that makes us call the provider is one of so many a minute: nobody drives us against it.</summary>
internal sealed class DoorPace : IDisposable
{
    // A device asks every five seconds whether it is done, an office of ten at once every half.
    private const int PerMinuteAndAddress = 120;

    private readonly PartitionedRateLimiter<HttpContext> _limiter = PartitionedRateLimiter.Create<HttpContext, string>(http =>
        RateLimitPartition.GetFixedWindowLimiter(
            http.Address(),
            _ =>
                new()
                {
                    PermitLimit = PerMinuteAndAddress,
                    Window = TimeSpan.FromMinutes(1),
                    QueueLimit = 0,
                }
        )
    );

    public bool MayGo(HttpContext http)
    {
        using var lease = _limiter.AttemptAcquire(http);
        return lease.IsAcquired;
    }

    public void Dispose() => _limiter.Dispose();
}
