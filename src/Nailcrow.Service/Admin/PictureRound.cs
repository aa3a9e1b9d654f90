using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets;
using Quartz;

namespace Nailcrow.Service.Admin;

/// <summary>
/// Lets go of pictures that were kept as long as was agreed with the customer. Each goes by an entry of its own, whose id is made from the
/// picture's, so that it goes once however many nodes look.
/// </summary>
[DisallowConcurrentExecution]
internal sealed class PictureRound(
    PicturePeriods periods,
    TicketJournal journal,
    ILeases leases,
    TimeProvider time,
    ILogger<PictureRound> log
) : IJob
{
    private const int AtOnce = 200;

    public async ValueTask Execute(IJobExecutionContext context, CancellationToken ct = default) =>
        await leases.DoAsync(SharedWork.LettingPicturesGo, LetGoAsync, ct);

    private async Task LetGoAsync(Lease lease, CancellationToken ct)
    {
        foreach (var period in await periods.StandingAsync(ct))
            for (long after = 0; ; )
            {
                var tickets = await periods.TicketsAsync(period, after, AtOnce, ct);
                foreach (var number in tickets)
                    await LetGoAsync(period, number, lease, ct);
                if (tickets.Count < AtOnce)
                    break;
                after = tickets[^1];
            }
    }

    private async Task LetGoAsync(PicturePeriod period, long number, Lease lease, CancellationToken ct)
    {
        if (
            await journal.ReadAsync(number, ct) is not { } record
            || PictureRemoved.EndHeard(record) is not { } ended
            || ended >= period.EndedBefore
        )
            return;
        var because = PicturesKept.Because(period.Customer, period.Months, ended);
        foreach (var photo in await periods.PicturesAsync(number, ct))
        {
            var id = SignedEvents.IdOf("picture-removed", $"{photo}");
            var intent = new Intent(id, time.GetUtcNow(), 0, Actor.Service, new PictureRemoved(photo, because));
            if (await journal.WriteAsync(number, intent, ct, lease) is Written.Declined declined)
                log.LogError("A picture that was kept long enough stays on its ticket: {Why}", declined.Ruling);
        }
    }
}
