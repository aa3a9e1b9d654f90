using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Returns.Letters;

/// <summary>Something of this ticket that goes out by mail: to whom, since when, and what came of it.</summary>
/// <param name="Asked">The entry that wants it sent; a mail has this one id however often it is tried.</param>
/// <param name="To">An address, or a person of ours by name.</param>
/// <param name="What">What it is, as it goes on after "sent": "the service report".</param>
/// <param name="About">Of a reminder, the drive that is to go back; null for a paper.</param>
public sealed record Letter(Guid Asked, string To, string What, DateTimeOffset At, string By, string? About = null)
{
    /// <summary>When the mail server took it; null as long as it has not.</summary>
    public DateTimeOffset? WentAt { get; init; }

    /// <summary>Why it does not go; null as long as it may.</summary>
    public string? Refused { get; init; }

    /// <summary>SHA-256 of the paper as it was sent, in lower-case hexadecimal digits; null of what has none.</summary>
    public string? Sha256 { get; init; }

    public bool Waits => WentAt is null && Refused is null;

    /// <summary>Nobody is reminded of what is there already, or goes nowhere any more.</summary>
    public bool IsStillOf(Ticket ticket) => About is null || ticket.Returns.Exists(r => r.Serial == About && r.ArrivedAt is null);

    /// <summary>How it stands, as one sentence.</summary>
    public string Stand() =>
        Refused is { } why ? $"{To} does not get {What}: {why}"
        : WentAt is { } at ? $"{To} was sent {What} on {at.UtcDateTime:yyyy-MM-dd} at {at.UtcDateTime:HH:mm} UTC"
        : $"{To} is sent {What}; it has not gone out yet";
}
