using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Claiming;

/// <summary>What a maker was asked about a drive of this ticket, and what it answered.</summary>
/// <param name="Asked">The entry it was asked with.</param>
public sealed record Claim(Guid Asked, string Serial, string Maker, MakerQuestion Question, DateTimeOffset AskedAt, string AskedBy)
{
    /// <summary>What was said to be wrong with it; null for what the ticket reports.</summary>
    public string? Fault { get; init; }
    public DateTimeOffset? AnsweredAt { get; init; }
    public Warranty? Warranty { get; init; }

    /// <summary>The number to send it back under.</summary>
    public string? Authorisation { get; init; }
    public DateOnly? DueBy { get; init; }

    /// <summary>What they charge when it is late.</summary>
    public string? LateCost { get; init; }

    /// <summary>Why they do not take it; null where they do, or have not answered.</summary>
    public string? Refused { get; init; }

    /// <summary>What else they said.</summary>
    public string? Says { get; init; }

    /// <summary>How it stands, as one sentence.</summary>
    public string Stand(DateOnly today) =>
        AnsweredAt is null ? $"{Maker} was asked about {Serial} ({Words.Of(Question).Replace('-', ' ')}), and has not answered yet"
        : Refused is { } no ? $"{Maker} refuses {Serial}: {no}"
        : string.Join(
            "; ",
            new[]
            {
                Warranty is { } warranty ? $"{Maker} on {Serial}: {warranty.Told(today)}" : null,
                Authorisation is { } number
                    ? $"{Maker} takes {Serial} back under {number}{(DueBy is { } due ? $", by {Carrying.Parcel.Day(due)}" : "")}"
                        + PartReturn.Late(LateCost)
                    : null,
                Says,
            }.Where(s => !string.IsNullOrWhiteSpace(s))
        );
}
