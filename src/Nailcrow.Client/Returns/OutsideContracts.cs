using Nailcrow.Core.Returns;

namespace Nailcrow.Client.Returns;

/// <summary>Somebody outside whom the service can ask.</summary>
/// <param name="Address">Where they answer; their forms are under it.</param>
/// <param name="EventsGoTo">Where a carrier tells what became of a parcel, signed.</param>
public sealed record PartnerView(string Name, PartnerKind Kind, string Address, string? EventsGoTo);

public sealed record PartnerList(IReadOnlyList<PartnerView> Partners);

/// <param name="Secret">What both sign with; null to keep the one there is, or to have one made.</param>
/// <param name="NewSecret">A new one is made in place of the one there is.</param>
public sealed record PartnerAsk(PartnerKind Kind, string Address, string? Secret = null, bool? NewSecret = null);

/// <param name="Secret">Shown this once where it was made now; null where there was one.</param>
public sealed record PartnerPut(PartnerView Partner, string? Secret);

/// <summary>Something that has to be said outside, and how far that is.</summary>
/// <param name="What">As one sentence.</param>
/// <param name="State">waiting, done, given-up or not-wanted.</param>
/// <param name="NextAt">When it is tried next; null where it is not.</param>
/// <param name="Says">What was said last: by the partner, or why they were not reached.</param>
public sealed record ErrandView(
    Guid Id,
    string What,
    string Partner,
    long Ticket,
    DateTimeOffset WrittenAt,
    string State,
    DateTimeOffset? NextAt,
    int Tries,
    string? Says
);

/// <param name="Next">To ask the next page with; null on the last.</param>
/// <param name="Counts">How many there are in each state; of those that are done or not wanted, the last 30 days'.</param>
public sealed record OutboxPage(IReadOnlyList<ErrandView> Errands, string? Next, IReadOnlyDictionary<string, int> Counts);
