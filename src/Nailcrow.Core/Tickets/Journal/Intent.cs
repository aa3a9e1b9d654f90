using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>An entry somebody wants written: everything of it that is known before the service has it.</summary>
/// <param name="ClockOffsetMs">How far the sender's clock was behind the service's, in milliseconds.</param>
/// <param name="Picture">What is kept beside the entry, in the same breath; null where nothing is.</param>
public sealed record Intent(Guid Id, DateTimeOffset At, long ClockOffsetMs, Actor Actor, EntryBody Body, Picture? Picture = null)
{
    /// <summary>Somebody outside worded it. What the service itself found out, at whoever's request, is not.</summary>
    public bool FromOutside { get; init; }

    private WrittenBody? _written;

    /// <summary>What it says as it will stand in the record. Made once, by whoever sends it, so that the one writer need not.</summary>
    public WrittenBody Written() => _written is { } made && ReferenceEquals(made.Of, Body) ? made : _written = WrittenBody.From(Body);

    /// <summary>When it happened, on the service's clock.</summary>
    public DateTimeOffset Happened => ServiceClock.Corrected(At, ClockOffsetMs);
}

/// <summary>A picture's bytes, as they came.</summary>
public sealed record Picture(string MediaType, byte[] Content);
