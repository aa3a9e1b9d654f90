using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets;

/// <summary>How bad it is, as one asks for it.</summary>
[JsonConverter(typeof(KebabEnum<DangerSought>))]
public enum DangerSought
{
    DataLost,
    NoMargin,
    SomeMargin,
    NotKnown,
}

[JsonConverter(typeof(KebabEnum<TicketOrder>))]
public enum TicketOrder
{
    Newest,
    Worst,
    DueFirst,
}

/// <summary>Which tickets are wanted; each part narrows further.</summary>
/// <param name="Find">A ticket's number, or any part of an asset number, a serial, a site or a customer.</param>
/// <param name="Before">Only numbers below this: where the last page ended, newest first.</param>
/// <param name="Site">Any part of its name; likewise the customer.</param>
/// <param name="Overdue">Only those whose next promise is over.</param>
/// <param name="Nobodys">Only those that no engineer has.</param>
/// <param name="Skip">How many to leave out, where they do not come newest first.</param>
public sealed record TicketSearch(
    bool? Ended = null,
    Stage? Stage = null,
    string? Engineer = null,
    string? Asset = null,
    string? Find = null,
    long? Before = null,
    int Limit = 50,
    string? Site = null,
    string? Customer = null,
    DangerSought? Danger = null,
    bool Overdue = false,
    TicketOrder Order = TicketOrder.Newest,
    int Skip = 0,
    bool Nobodys = false
);
