using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Store;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Tickets;
using Quartz;

namespace Nailcrow.Service.Returns.Outside.Mail;

/// <summary>
/// Reminds of what has to be back by a day, before it and after. A reminder has one id for its drive, day, turn and person, so that it
/// is written once however often, and by however many nodes, it is looked for.
/// </summary>
[DisallowConcurrentExecution]
internal sealed class ReminderRound(
    LedgerBook ledger,
    TicketJournal journal,
    Partners partners,
    IDbContextFactory<NailcrowDb> dbs,
    ILeases leases,
    TimeProvider time,
    ILogger<ReminderRound> log
) : IJob
{
    private const int AtOnce = 200;

    public async ValueTask Execute(IJobExecutionContext context, CancellationToken ct = default) =>
        await leases.DoAsync(SharedWork.Reminding, RemindAllAsync, ct);

    private async Task RemindAllAsync(Lease lease, CancellationToken ct)
    {
        if (!(await partners.AllAsync(ct)).Any(p => p.Kind == PartnerKind.Mail))
            return; // lists, deadlines and what comes next say so all the same
        var today = DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime);
        var (reached, leads) = await ReachedAsync(ct);
        for (long after = 0; ; )
        {
            var tickets = await ledger.WithDueAsync(today.AddDays(Reminding.DaysBefore), after, AtOnce, ct);
            foreach (var number in tickets)
                if (await journal.ReadAsync(number, ct) is { } record)
                    foreach (var open in record.Ticket.Returns)
                        await RemindAsync(record, open, today, reached, leads, lease, ct);
            if (tickets.Count < AtOnce)
                return;
            after = tickets[^1];
        }
    }

    private async Task RemindAsync(
        TicketRecord record,
        PartReturn open,
        DateOnly today,
        IReadOnlySet<string> reached,
        IReadOnlyList<string> leads,
        Lease lease,
        CancellationToken ct
    )
    {
        if (Reminding.Nth(open, today) is not { } nth || open.DueBy is not { } due)
            return;
        foreach (var person in Reminding.Whom(record.Ticket, open, nth, leads).Where(reached.Contains))
        {
            var id = SignedEvents.IdOf("reminder", $"{record.Ticket.Number} {open.Serial} {open.OpenedAt:O} {due:O} {nth} {person}");
            if (record.Find(id) is not null)
                continue;
            var intent = new Intent(id, time.GetUtcNow(), 0, Actor.Service, new ReturnReminded(open.Serial, person, due));
            if (await journal.WriteAsync(record.Ticket.Number, intent, ct, lease) is Written.Declined declined)
                log.LogError("A reminder of {Serial} was not taken on its ticket: {Why}", open.Serial, declined.Ruling);
        }
    }

    /// <summary>Who has an address, and which of them lead.</summary>
    private async Task<(IReadOnlySet<string> Reached, IReadOnlyList<string> Leads)> ReachedAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var people = await db
            .Users.AsNoTracking()
            .Where(p => p.Email != null && p.DisabledAt == null)
            .OrderBy(p => p.UserName)
            .ToListAsync(ct);
        return (
            people.Select(p => p.UserName ?? "").ToHashSet(StringComparer.Ordinal),
            [.. people.Where(p => p.Roles().Contains(Role.Lead)).Select(p => p.UserName ?? "")]
        );
    }
}
