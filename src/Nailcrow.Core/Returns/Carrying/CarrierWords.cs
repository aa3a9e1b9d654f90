namespace Nailcrow.Core.Returns.Carrying;

/// <summary>What a carrier is asked over HTTP, as JSON: docs/outside.md has the whole form.</summary>
/// <param name="Booking">Ours for it; the same booking asked twice is one.</param>
/// <param name="Reference">What stands on the box: the ticket.</param>
/// <param name="Contents">Serials of what is in it.</param>
public sealed record BookingAsk(
    Guid Booking,
    string Reference,
    PlaceToCall From,
    PlaceToCall To,
    IReadOnlyList<string> Contents,
    DateOnly? CollectOn = null
);

/// <summary>Where a carrier comes, or brings something.</summary>
public sealed record PlaceToCall(string Name, string? Address = null, string? Access = null);

/// <param name="Label">The carrier's number for the parcel.</param>
public sealed record BookingAnswer(string Label, DateOnly? CollectsOn = null);

/// <summary>One thing that became of a parcel.</summary>
/// <param name="Id">The carrier's own name for this event; the same twice is one.</param>
public sealed record ParcelEvent(string Id, string Label, ParcelStep Step, DateTimeOffset At, string? Place = null, string? Says = null);

/// <summary>Events, oldest first.</summary>
public sealed record ParcelEvents(IReadOnlyList<ParcelEvent> Events);
