using Nailcrow.Core.Returns.Claiming;

namespace Nailcrow.Client.Returns;

/// <summary>One line of what is known of warranties.</summary>
/// <param name="Says">It as a sentence: until when, on which terms, whose word of when that is.</param>
/// <param name="Ended">Its last day is over.</param>
public sealed record WarrantyLine(KnownWarranty Known, string Says, bool Ended);

/// <summary>What is known of warranties, those that end first first.</summary>
/// <param name="Next">What to ask on with; null on the last page.</param>
public sealed record WarrantyPage(IReadOnlyList<WarrantyLine> Warranties, string? Next);
