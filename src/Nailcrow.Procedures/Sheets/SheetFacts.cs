using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;

namespace Nailcrow.Procedures.Sheets;

/// <summary>What is known when a sheet is compiled.</summary>
public sealed record SheetFacts(
    ApplianceModel Model,
    string Asset,
    string ChassisSerial,
    string Site,
    string Location,
    string Array,
    IReadOnlyList<SheetDrive> Drives,
    TicketFacts Ticket,
    Space? Space = null
)
{
    /// <summary>The value of a model property or a fact of the ticket; null for what only answers will tell.</summary>
    public string? Of(string fact) => ModelProperties.Of(Model, fact) ?? Ticket.Of(fact);
}
