using Nailcrow.Client.Tickets;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Service.Tickets;

internal static class Intents
{
    public static Intent Of(EntryAsk ask, Actor actor, DateTimeOffset now) =>
        new(ask.Id ?? Guid.CreateVersion7(now), ask.At ?? ask.SentAt ?? now, OffsetMs(ask.SentAt, ask.ClockBehindMs, now), actor, ask.Body)
        {
            FromOutside = true,
        };

    public static Intent ByService(EntryBody body, DateTimeOffset now) => new(Guid.CreateVersion7(now), now, 0, Actor.Service, body);

    /// <param name="id">The id under which it was asked for; null where whoever asked made none.</param>
    public static Intent By(Actor actor, EntryBody body, DateTimeOffset now, Guid? id = null) =>
        new(id ?? Guid.CreateVersion7(now), now, 0, actor, body);

    /// <summary>
    /// How far the sender's clock is behind. What it shows when it sends tells that only together with the way the message took, which is
    /// long on a poor line: one that has measured it there and back knows better, and is believed where that way can have been so long.
    /// </summary>
    private static long OffsetMs(DateTimeOffset? sentAt, long? measured, DateTimeOffset now)
    {
        var shown = sentAt is { } sent ? (now - sent).TotalMilliseconds : 0;
        var offset = sentAt is not null && measured is { } behind && shown - behind is > -LeastMs and < LongestWayMs ? behind : shown;
        return Math.Abs(offset) < LeastMs ? 0 : (long)Math.Clamp(offset, -MostOffsetMs, MostOffsetMs);
    }

    // What a message's way and the whole seconds of a Date make of a clock that is right.
    private const double LeastMs = 2_000;

    // No sender waits longer for an answer.
    private const double LongestWayMs = 2 * 60 * 1000;

    // A device that was set to another century; more would overflow the clock.
    private const double MostOffsetMs = 100.0 * 365 * 24 * 3600 * 1000;
}
