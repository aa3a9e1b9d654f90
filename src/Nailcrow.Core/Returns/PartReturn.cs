namespace Nailcrow.Core.Returns;

/// <summary>A drive going back: why, to whom, under which authorisation, by when, and how far it has got.</summary>
public sealed record PartReturn(
    string Serial,
    string Reason,
    Holder To,
    string? Authorisation,
    DateOnly? DueBy,
    DateTimeOffset OpenedAt,
    string? Carrier = null,
    string? Tracking = null,
    DateTimeOffset? SentAt = null,
    DateTimeOffset? ArrivedAt = null
);
