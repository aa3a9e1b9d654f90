using Nailcrow.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Service.Swaps;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Rebuilds;

/// <summary>Asks a machine how its rebuild goes and keeps what is new; at the end it keeps a snapshot as well.</summary>
internal sealed class RebuildFollower(TicketJournal journal, ReferenceBook book, IApplianceLink link, TimeProvider time)
{
    // An unchanged reading is repeated this often, so that "no news" and "does not move" stay two things.
    private static readonly TimeSpan RepeatAfter = TimeSpan.FromMinutes(5);

    /// <param name="lease">What is read is kept only while following is this node's work.</param>
    public async Task FollowAsync(long number, Lease lease, CancellationToken ct)
    {
        if (await journal.ReadAsync(number, ct) is not { Ticket: { Sheet: not null } ticket })
            return;
        // No address, or no answer: nothing is written, and the watch will say "no news" in its time.
        if (await link.LookAsync(await SwapsEndpoints.OfAsync(ticket, book, ct), ct) is not Parsed<MachineLook>.Ok(var look))
            return;
        if (MachineReading.Of(look, ticket) is { } reading && IsNews(ticket, reading))
            await KeepAsync(number, reading, look, Actor.Service, ct, under: lease);
    }

    /// <summary>A reading asked for by a person, told as a refusal when the machine has none.</summary>
    /// <param name="id">The id under which it was asked for; null where whoever asked made none.</param>
    public async Task<Parsed<Written>> AskAsync(Ticket ticket, Actor actor, Guid? id, CancellationToken ct)
    {
        if (!(await link.LookAsync(await SwapsEndpoints.OfAsync(ticket, book, ct), ct)).Is(out var look, out var reason))
            return new Parsed<Written>.Refused(reason);
        return MachineReading.Of(look, ticket) is { } reading
            ? new Parsed<Written>.Ok(await KeepAsync(ticket.Number, reading, look, actor, ct, id))
            : new Parsed<Written>.Refused(
                "The machine shows no rebuild for this ticket's array. If it is to be started by hand, start it."
            );
    }

    private async Task<Written> KeepAsync(
        long number,
        ReadingTaken reading,
        MachineLook look,
        Actor actor,
        CancellationToken ct,
        Guid? id = null,
        Lease? under = null
    )
    {
        if (reading.Progress == Progress.Done)
            await journal.WriteAsync(number, Intents.By(actor, new SnapshotTaken(look.Snapshot), time.GetUtcNow()), ct, under);
        return await journal.WriteAsync(number, Intents.By(actor, reading, time.GetUtcNow(), id), ct, under);
    }

    private bool IsNews(Ticket ticket, ReadingTaken reading) =>
        ticket.Readings.LastOrDefault() is not { } last
        || (last.Progress, last.Phase, last.Percent) != (reading.Progress, reading.Phase, reading.Percent)
        || time.GetUtcNow() - last.At > RepeatAfter;
}
