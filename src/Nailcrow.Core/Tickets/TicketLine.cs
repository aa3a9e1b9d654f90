using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tickets;

/// <summary>What lists show of a ticket.</summary>
public sealed record TicketLine(
    long Number,
    string Asset,
    string Model,
    string Customer,
    string Site,
    string Symptom,
    string? Bay,
    string? Serial,
    Stage Stage,
    int? Margin,
    string Danger,
    string? Engineer,
    NextAction Next,
    string? HoldReason,
    bool Escalated,
    DateTimeOffset ReceivedAt,
    DateTimeOffset ChangedAt,
    int? AtWorst = null,
    SwapHelp Help = SwapHelp.NotKnown,
    DateTimeOffset? DueAt = null,
    DeadlineKind? Due = null,
    DateTimeOffset? VisitFrom = null,
    DateTimeOffset? VisitTo = null
)
{
    /// <summary>Closed or cancelled; something may have come in since that a lead has to look at.</summary>
    public bool HasEnded => Stage is Stage.Closed or Stage.Cancelled;
}
