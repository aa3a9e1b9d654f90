using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Intake;
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
        Sent<FaultAsk> sent,
        ReferenceBook book,
        TicketLines lines,
        TicketJournal journal,
        OneAtATime doors,
        IntakeLog log,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var fault = sent.Message;
        if (await book.FindAsync(fault.Asset, ct) is not { } known)
            return await KeptAsync(fault, log, time, person, ct);
        var report = Reporting.Of(known, fault.Symptom, fault.Job, fault.Bay, fault.Serial, fault.Since) with { Array = fault.Array };
        var intent = Intents.By(person.ToActor(), report, time.GetUtcNow()) with
        {
            Id = fault.Id ?? Guid.CreateVersion7(time.GetUtcNow()),
            At = fault.At ?? time.GetUtcNow(),
        };
        // Said before opening: an unusable report must not be swallowed as evidence on another ticket.
        if (report.Problem(new Ticket(0)) is { } problem)
            return Refusals.Unusable(problem);
        return Receipts.Answer(await doors.OfAsync(report.Asset, () => JoinOrOpenAsync(lines, journal, intent, report, ct), ct));
    }

    /// <summary>Again where another node opened a ticket of the machine meanwhile: it may be about the same drive.</summary>
    private static async Task<Written> JoinOrOpenAsync(
        TicketLines lines,
        TicketJournal journal,
        Intent intent,
        FaultReported report,
        CancellationToken ct
    )
    {
        while (true)
        {
            var newest = await lines.NewestAtAsync(report.Asset, ct); // before the look: of what comes after that we do not know
            var open = await lines.FindAsync(new(Ended: false, Asset: report.Asset, Limit: 100), ct);
            var written = Joining.Open(open.Where(l => !l.HasEnded), report) is { } same
                ? await JoinAsync(journal, same, intent, report, ct)
                : await journal.OpenAsync(intent, ct, newest);
            if (written is not Written.Overtaken)
                return written;
        }
    }

    /// <summary>Nobody has heard of the machine: what was said is kept at once, and waits for somebody to add it.</summary>
    private static async Task<ProblemHttpResult> KeptAsync(
        FaultAsk fault,
        IntakeLog log,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var (who, now, asset) = (person.ToActor().Name, time.GetUtcNow(), fault.Asset.Trim().ToUpperInvariant());
        // What could never become a ticket is said at once, as for a machine that is known.
        var report = FaultReported.Lost with
        {
            Asset = asset,
            Symptom = Reporting.Short(fault.Symptom),
            Bay = fault.Bay,
            Serial = fault.Serial,
        };
        if ((Bounds.Problem(report) ?? report.Problem(new Ticket(0))) is { } problem)
            return Refusals.Unusable(problem);
        if (string.IsNullOrWhiteSpace(asset))
            return Refusals.Unusable("Say which machine it is by its asset number; 'nailcrow appliance list' shows those that are known.");
        var said = new Alert(
            fault.Id ?? Guid.CreateVersion7(now),
            IntakeLog.ByPerson,
            who,
            fault.Since ?? now,
            EvidenceKind.Symptom,
            Reporting.Short(fault.Symptom),
            asset,
            fault.Bay,
            Serial: fault.Serial
        );
        var text = $"{asset}: {said.Text}{(said.Bay is { } bay ? $", bay {bay}" : "")}{(said.Serial is { } serial ? $", {serial}" : "")}";
        await log.KeepAsync(
            [new(said.Id, now, IntakeLog.ByPerson, who, null, text, IntakeOutcome.UnknownSender, null, asset, null, said)],
            ct
        );
        return Refusals.Unusable(
            $"No appliance has the asset number '{fault.Asset}'. What you said is kept in the intake list. If the machine is new, add it "
                + $"(Machines, or 'nailcrow appliance add {asset}'), and make the ticket there; if the number was a slip, report it again."
        );
    }

    /// <summary>The same report sent again finds the ticket it opened; another report of the same drive is evidence.</summary>
    private static async Task<Written> JoinAsync(
        TicketJournal journal,
        long ticket,
        Intent intent,
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
