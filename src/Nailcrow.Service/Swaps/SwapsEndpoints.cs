using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Appliances;
using Nailcrow.Client.Swaps;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Swaps;

/// <summary>What the service does at the machine for whoever stands before it.</summary>
internal static class SwapsEndpoints
{
    public static void MapSwaps(this WebApplication app)
    {
        var ticket = app.MapGroup("/api/tickets/{number:long}").WithTags("Swaps");
        ticket.MapPost("/sheet", StartRun).WithName("StartRun");
        ticket.MapGet("/sheets", Others).WithName("ListOtherSheets");
        ticket.MapPost("/snapshots", TakeSnapshot).WithName("TakeSnapshot");
        ticket.MapPost("/snapshots/seen", TypeSnapshot).WithName("TypeSnapshot");
        ticket.MapPost("/light", SwitchLight).WithName("SwitchLight");
    }

    internal static Task<Results<Ok<Receipt>, ProblemHttpResult>> StartRun(
        long number,
        Sent<SheetAsk> sent,
        TicketJournal journal,
        SheetMaker sheets,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct,
        Guid? id = null
    ) =>
        Asked.OnceAsync(
            journal,
            number,
            id,
            async ticket =>
                await sheets.MakeAsync(ticket, sent.Message, ct) switch
                {
                    Parsed<SheetCompiled>.Ok(var compiled) => Receipts.Answer(
                        await journal.WriteAsync(
                            number,
                            Intents.By(person.ToActor(), compiled, sent.Message.At ?? time.GetUtcNow(), id),
                            ct
                        )
                    ),
                    Parsed<SheetCompiled>.Refused(var reason) => Refusals.Refused(reason),
                    _ => throw new System.Diagnostics.UnreachableException(),
                },
            ct
        );

    /// <summary>What a run that is under way may be left for. Each is compiled to be told, so it is asked for and stands in no view.</summary>
    internal static async Task<Results<Ok<OtherSheets>, ProblemHttpResult>> Others(
        long number,
        TicketJournal journal,
        SheetMaker sheets,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is { Ticket: var ticket }
            ? TypedResults.Ok(new OtherSheets(await sheets.OthersAsync(ticket, ct)))
            : Refusals.NoTicket(number);

    internal static Task<Results<Ok<Receipt>, ProblemHttpResult>> TakeSnapshot(
        long number,
        TicketJournal journal,
        ReferenceBook book,
        IApplianceLink link,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct,
        Guid? id = null
    ) =>
        Asked.OnceAsync(
            journal,
            number,
            id,
            async ticket =>
                await link.LookAsync(await OfAsync(ticket, book, ct), ct) switch
                {
                    Parsed<MachineLook>.Ok(var look) => Receipts.Answer(
                        await journal.WriteAsync(
                            number,
                            Intents.By(
                                person.ToActor(),
                                new SnapshotTaken(await WithUntoldAsync(look.Snapshot, ticket, book, ct)),
                                time.GetUtcNow(),
                                id
                            ),
                            ct
                        )
                    ),
                    Parsed<MachineLook>.Refused(var reason) => Refusals.Unreachable(reason),
                    _ => throw new System.Diagnostics.UnreachableException(),
                },
            ct
        );

    private static async Task<Core.Appliances.Snapshot> WithUntoldAsync(
        Core.Appliances.Snapshot seen,
        Ticket ticket,
        ReferenceBook book,
        CancellationToken ct
    ) => seen.Gaps is null ? seen : seen.WithUntold((await book.FindAsync(ticket.Report?.Asset ?? "", ct))?.Labels ?? []);

    /// <summary>Where no wire reaches the machine, or it says nothing: what a person sees there.</summary>
    internal static Task<Results<Ok<Receipt>, ProblemHttpResult>> TypeSnapshot(
        long number,
        Sent<SeenByPerson> sent,
        TicketJournal journal,
        ReferenceBook book,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct,
        Guid? id = null
    ) =>
        Asked.OnceAsync(
            journal,
            number,
            id,
            async ticket =>
                await StartAsync(ticket, book, ct) is not { } start
                    ? Refusals.Refused("Nothing is known of this machine's bays; somebody who may adds it to the list of appliances first.")
                : sent.Message.On(start, time.GetUtcNow()).Is(out var snapshot, out var reason)
                    ? Receipts.Answer(
                        await journal.WriteAsync(
                            number,
                            Intents.By(person.ToActor(), new SnapshotTaken(snapshot), time.GetUtcNow(), id),
                            ct
                        )
                    )
                : Refusals.Refused(reason),
            ct
        );

    private static async Task<Snapshot?> StartAsync(Ticket ticket, ReferenceBook book, CancellationToken ct) =>
        ticket.Latest
        ?? (await book.FindAsync(ticket.Report?.Asset ?? "", ct) is { } known ? BlankSnapshot.Of(known.Appliance, known.Drawing) : null);

    internal static Task<Results<Ok<Receipt>, ProblemHttpResult>> SwitchLight(
        long number,
        Sent<LightAsk> sent,
        TicketJournal journal,
        ReferenceBook book,
        IApplianceLink link,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct,
        Guid? id = null
    ) =>
        Asked.OnceAsync(
            journal,
            number,
            id,
            async ticket =>
            {
                // Ruled on before anything blinks: what the journal would not take must not happen at the machine either.
                if (
                    Ruling.On(ticket, new LocatorSwitched(sent.Message.On), person.ToActor(), time.GetUtcNow())
                    is var ruling
                        and not Ruling.Accepted
                )
                    return Refusals.Of(new Written.Declined(ruling));
                return await link.SwitchLightAsync(await OfAsync(ticket, book, ct), sent.Message.On, ct) switch
                {
                    Parsed<bool>.Ok(var on) => Receipts.Answer(
                        await journal.WriteAsync(number, Intents.By(person.ToActor(), new LocatorSwitched(on), time.GetUtcNow(), id), ct)
                    ),
                    Parsed<bool>.Refused(var reason) => Refusals.Unreachable(reason),
                    _ => throw new System.Diagnostics.UnreachableException(),
                };
            },
            ct
        );

    /// <summary>The ticket's appliance; one that was struck off since has no address to ask.</summary>
    internal static async Task<Core.Appliances.Appliance> OfAsync(Ticket ticket, ReferenceBook book, CancellationToken ct)
    {
        var report = ticket.Report ?? Core.Intake.FaultReported.Lost;
        return (await book.FindAsync(report.Asset, ct))?.Appliance
            ?? new(report.Asset, report.ChassisSerial, report.Model, report.Site, report.Location);
    }
}
