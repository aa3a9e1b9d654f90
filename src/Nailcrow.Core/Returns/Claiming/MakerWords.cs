namespace Nailcrow.Core.Returns.Claiming;

/// <summary>What a maker is asked over HTTP, as JSON: docs/outside.md has the whole form.</summary>
/// <param name="Claim">Ours for it; the same claim asked twice is one.</param>
/// <param name="Fault">What is wrong with it; null where only its warranty is asked.</param>
public sealed record ClaimAsk(Guid Claim, string Serial, MakerQuestion Question, string? Model = null, string? Fault = null);

/// <param name="Serial">The drive they speak of; an answer about another one is no answer.</param>
/// <param name="LateCost">What is charged when it comes after <paramref name="DueBy"/>, with its currency.</param>
/// <param name="UnderReview">They look at it, and are asked again later.</param>
public sealed record ClaimAnswer(
    string Serial,
    Warranty? Warranty = null,
    string? Authorisation = null,
    DateOnly? DueBy = null,
    string? Refused = null,
    string? Says = null,
    bool? UnderReview = null,
    string? LateCost = null
);
