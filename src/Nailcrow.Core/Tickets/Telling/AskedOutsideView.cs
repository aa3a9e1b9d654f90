using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;

namespace Nailcrow.Core.Tickets.Telling;

/// <summary>A box that a carrier was asked to fetch.</summary>
/// <param name="Stand">How it stands, as a sentence.</param>
/// <param name="Said">What they said of it, oldest first.</param>
public sealed record ParcelView(
    Guid Asked,
    IReadOnlyList<string> Serials,
    string Carrier,
    Holder To,
    string? Label,
    string Stand,
    IReadOnlyList<TrackedView> Said
)
{
    internal static ParcelView Of(Parcel parcel) =>
        new(
            parcel.Asked,
            parcel.Serials,
            parcel.Carrier,
            parcel.To,
            parcel.Label,
            parcel.Stand(),
            [.. parcel.Said.Select(s => new TrackedView(s.At, Parcel.Told(s)))]
        );
}

/// <summary>One thing that a carrier said.</summary>
public sealed record TrackedView(DateTimeOffset At, string Told);

/// <summary>What a maker was asked about a drive.</summary>
/// <param name="Stand">How it stands, as a sentence.</param>
/// <param name="At">When it was answered; when it was asked, where it is not yet.</param>
public sealed record ClaimView(Guid Asked, string Serial, string Maker, string Stand, DateTimeOffset At, bool Answered)
{
    internal static ClaimView Of(Claim claim, DateOnly today) =>
        new(claim.Asked, claim.Serial, claim.Maker, claim.Stand(today), claim.AnsweredAt ?? claim.AskedAt, claim.AnsweredAt is not null);
}
