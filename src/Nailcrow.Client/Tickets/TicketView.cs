using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Client.Tickets;

/// <summary>A ticket whole, as its journal tells it now.</summary>
/// <param name="Model">The appliance's model, for the drawing; null where it is not known any more.</param>
/// <param name="Chances">Of losing data while it rebuilds; null where there is nothing to reckon them from.</param>
/// <param name="Chosen">The serials of the drives it swaps, in their order; empty where only the reported one is.</param>
/// <param name="InTurn">The drives it could swap, the worst first; empty once one has been moved.</param>
/// <param name="Drawing">The enclosures as one stands before them.</param>
/// <param name="Zone">The site's IANA time zone.</param>
/// <param name="Access">What one has to know to get in at the site.</param>
/// <param name="Reachable">Whether the service can ask the machine itself.</param>
public sealed record TicketView(
    long Number,
    long Head,
    FaultReported Report,
    DateTimeOffset ReceivedAt,
    Stage Stage,
    string? Engineer,
    string? HoldReason,
    HelpCall? Help,
    DateTimeOffset? ArrivedAt,
    DateTimeOffset? EndedAt,
    IReadOnlyList<Evidence> Evidence,
    string? Backup,
    string? BackupDetail,
    Danger Danger,
    LossChances? Chances,
    Exposure? Exposure,
    IReadOnlyList<Deadline> Deadlines,
    PlannedVisit? Visit,
    NextAction Next,
    Snapshot? Before,
    Snapshot? Latest,
    Snapshot? After,
    IReadOnlyList<BayChange> Changes,
    bool LocatorOn,
    ReservedPart? Part,
    IReadOnlyList<ReservedPart> Parts,
    IReadOnlyList<string> Chosen,
    IReadOnlyList<DriveInTurn> InTurn,
    RunView? Run,
    Swap Swap,
    IReadOnlyList<Swap> EarlierSwaps,
    IReadOnlyList<Photo> Photos,
    RebuildView Rebuild,
    IReadOnlyList<CustodyMove> Custody,
    IReadOnlyList<PartReturn> Returns,
    IReadOnlyList<Discrepancy> Discrepancies,
    string? SignedOffBy,
    IReadOnlyList<ClosingCondition> Closing,
    ApplianceModel? Model,
    IReadOnlyList<ChassisDrawing>? Drawing,
    string? Zone,
    string? Access,
    bool Reachable
);

/// <summary>How far a run sheet has been followed.</summary>
/// <param name="Current">The one step to do now; null at the end.</param>
/// <param name="Unmet">Why the current gate, hold or call cannot be passed yet; null where it can.</param>
/// <param name="Bay">The bay the current step points at; null where it points at none.</param>
/// <param name="HandedOver">It ended at a call; its end was not reached.</param>
/// <param name="Withdrawn">Why the procedure's version was withdrawn while the run goes on; null where it stands.</param>
/// <param name="Interrupts">The title of the sheet that goes on after this one; null where there is none.</param>
/// <param name="MapWarning">Why the software's name for the bay is not to be trusted yet; null where it was confirmed, or none is looked for.</param>
/// <param name="Expected">The serial the current scan is held against.</param>
public sealed record RunView(
    RunSheet Sheet,
    RunStep? Current,
    DateTimeOffset Since,
    string? Unmet,
    string? Expected,
    string? Bay,
    IReadOnlyList<Visit> Visits,
    IReadOnlyList<RunningLimit> Limits,
    bool HandedOver = false,
    string? Withdrawn = null,
    string? Interrupts = null,
    string? MapWarning = null
);

/// <summary>How the rebuild stands, with what was read.</summary>
/// <param name="Readings">What a chart can show of them; all are asked for in pages.</param>
/// <param name="Count">How many there are in all.</param>
public sealed record RebuildView(RebuildLook Look, IReadOnlyList<Reading> Readings, int Count = 0);

/// <summary>Readings of a rebuild, oldest first.</summary>
/// <param name="Next">Pass as <c>after</c> for the next page; null at the end.</param>
public sealed record ReadingPage(IReadOnlyList<Reading> Readings, int? Next);
