using Nailcrow.Core.People;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>An entry somebody wants written: everything of it that is known before the service has it.</summary>
/// <param name="ClockOffsetMs">How far the sender's clock was behind the service's, in milliseconds.</param>
/// <param name="Picture">What is kept beside the entry, in the same breath; null where nothing is.</param>
public sealed record Intent(Guid Id, DateTimeOffset At, long ClockOffsetMs, Actor Actor, EntryBody Body, Picture? Picture = null)
{
    /// <summary>Somebody outside worded it. What the service itself found out, at whoever's request, is not.</summary>
    public bool FromOutside { get; init; }

    /// <summary>When it happened, on the service's clock.</summary>
    public DateTimeOffset Happened => ServiceClock.Corrected(At, ClockOffsetMs);
}

/// <summary>A picture's bytes, as they came.</summary>
public sealed record Picture(string MediaType, byte[] Content);
