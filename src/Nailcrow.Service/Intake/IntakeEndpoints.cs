using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Service.Host;
using Nailcrow.Service.People;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Intake;

internal static class IntakeEndpoints
{
    public static void MapIntake(this WebApplication app)
    {
        app.MapPost("/api/tickets", Report).WithTags("Intake").WithName("ReportFault");
        app.MapIntakeList();
        app.MapMachineEvents();
    }

    /// <summary>A fault becomes a ticket, or joins the one that is open for the same drive.</summary>
    internal static async Task<Results<Ok<Receipt>, ProblemHttpResult>> Report(
        FaultAsk fault,
        ReferenceBook book,
        TicketLines lines,
        TicketJournal journal,
        OneAtATime doors,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        if (await book.FindAsync(fault.Asset, ct) is not { } known)
            return Refusals.Unusable(
                $"No appliance has the asset number '{fault.Asset}'; 'nailcrow appliance list' shows those that are known."
            );
        var report = Reporting.Of(known, fault.Symptom, fault.Job, fault.Bay, fault.Serial, fault.Since);
        var intent = Intents.By(person.ToActor(), report, time.GetUtcNow()) with
        {
            Id = fault.Id ?? Guid.CreateVersion7(time.GetUtcNow()),
            At = fault.At ?? time.GetUtcNow(),
        };
        // Said before opening: an unusable report must not be swallowed as evidence on another ticket.
        if (report.Problem(new Ticket(0)) is { } problem)
            return Refusals.Unusable(problem);
        return Receipts.Answer(
            await doors.OfAsync(
                report.Asset,
                async () =>
                {
                    var open = await lines.FindAsync(new(Ended: false, Asset: report.Asset, Limit: 100), ct);
                    return Joining.Open(open.Where(l => !l.HasEnded), report) is { } same
                        ? await JoinAsync(journal, same, intent, report, ct)
                        : await journal.OpenAsync(intent, ct);
                },
                ct
            )
        );
    }

    /// <summary>The same report sent again finds the ticket it opened; another report of the same drive is evidence.</summary>
    private static async Task<Written> JoinAsync(
        TicketJournal journal,
        long ticket,
        Core.Tickets.Journal.Intent intent,
        FaultReported report,
        CancellationToken ct
    ) =>
        (await journal.ReadAsync(ticket, ct))?.Find(intent.Id) is { Body: FaultReported }
            ? await journal.OpenAsync(intent, ct)
            : await journal.WriteAsync(
                ticket,
                intent with
                {
                    Body = new EvidenceSeen(EvidenceKind.Symptom, intent.Actor.Name, report.Symptom, Serial: report.Serial),
                },
                ct
            );
}
