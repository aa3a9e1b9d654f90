using Nailcrow.Client.Procedures;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Client.Tickets.Planning;

/// <summary>An engineer who could take a ticket.</summary>
/// <param name="Load">Open tickets they have.</param>
/// <param name="Km">From the nearest site they are going to anyway, as the crow flies; null where that is not known.</param>
/// <param name="WhyNot">Why whoever asked may not give it to them; null where they may.</param>
public sealed record Candidate(string Engineer, int Load, double? Km, string? Near, string? WhyNot = null);

/// <summary>One open ticket as a dispatcher weighs it.</summary>
/// <param name="Candidates">Who could take it, the best first; only for one that nobody has.</param>
public sealed record DeskLine(TicketLine Ticket, Priority Priority, IReadOnlyList<Candidate> Candidates);

/// <summary>A page of the open tickets, what comes first on top.</summary>
/// <param name="Next">Pass as <c>skip</c> for the next page; null at the end.</param>
/// <param name="Count">How many are asked for in all, counted no further than <see cref="TicketPage.MostCounted"/>.</param>
/// <param name="WithNobody">How many of them no engineer has, counted likewise.</param>
/// <param name="NotUsed">What of the library is not used, and why; null or empty where all of it is.</param>
public sealed record DeskView(
    IReadOnlyList<DeskLine> Lines,
    IReadOnlyList<EngineerLoad> Engineers,
    long? Next = null,
    int Count = 0,
    int WithNobody = 0,
    IReadOnlyList<ProcedureNotUsed>? NotUsed = null
);

/// <param name="Out">They may not come in any more: what they have open waits for nobody, and is to be handed over.</param>
public sealed record EngineerLoad(string Engineer, string FullName, int Open, int Visits, bool Out = false);

/// <summary>One stop of a day.</summary>
public sealed record Stop(TicketLine Ticket, Priority Priority, double? KmFromBefore);

/// <summary>An engineer's day: visits that have a time in their order, then the rest in the order of the shortest way.</summary>
/// <param name="Calendar">Where the calendar feed of this engineer is; the address is the key to it.</param>
public sealed record DayView(string Engineer, IReadOnlyList<Stop> Stops, string Calendar);
