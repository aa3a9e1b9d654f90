using Nailcrow.Client.Tickets;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Service.Tickets;

internal static class Intents
{
    public static Intent Of(EntryAsk ask, Actor actor, DateTimeOffset now) =>
        new(ask.Id ?? Guid.CreateVersion7(now), ask.At ?? ask.SentAt ?? now, OffsetMs(ask.SentAt, now), actor, ask.Body)
        {
            FromOutside = true,
        };

    public static Intent ByService(EntryBody body, DateTimeOffset now) => new(Guid.CreateVersion7(now), now, 0, Actor.Service, body);

    /// <param name="id">The id under which it was asked for; null where whoever asked made none.</param>
    public static Intent By(Actor actor, EntryBody body, DateTimeOffset now, Guid? id = null) =>
        new(id ?? Guid.CreateVersion7(now), now, 0, actor, body);

    /// <summary>How far the sender's clock is behind. Under 2 s is the way the message took, not the clock.</summary>
    private static long OffsetMs(DateTimeOffset? sentAt, DateTimeOffset now)
    {
        var offset = sentAt is { } sent ? (now - sent).TotalMilliseconds : 0;
        return Math.Abs(offset) < 2000 ? 0 : (long)Math.Clamp(offset, -MostOffsetMs, MostOffsetMs);
    }

    // A device that was set to another century; more would overflow the clock.
    private const double MostOffsetMs = 100.0 * 365 * 24 * 3600 * 1000;
}
