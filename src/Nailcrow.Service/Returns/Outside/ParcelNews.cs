using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Returns.Outside;

/// <summary>What carriers say of parcels, whether they told it or were asked: each event is written once, on the ticket it is about.</summary>
internal sealed class ParcelNews(Outbox outbox, TicketJournal journal, TimeProvider time)
{
    /// <returns>Why it is not taken; null where it is on record now.</returns>
    public async Task<string?> TakeAsync(string carrier, ParcelEvent said, CancellationToken ct)
    {
        if (AnswerCheck.Problem(said) is { } problem)
            return $"Event {said.Id}: {problem}";
        var label = said.Label.Trim();
        if (await outbox.TicketOfAsync(carrier, label, ct) is not { } number)
            return $"Event {said.Id}: {carrier} has no parcel {label} of ours.";
        var parcel = (await journal.ReadAsync(number, ct))?.Ticket.Parcels.Find(p => p.Is(carrier, label));
        // A carrier's clock is its own: what is ahead of ours happened when it was told, and nothing happened before it was booked.
        var now = time.GetUtcNow();
        var at = said.At > now ? now : said.At.ToUniversalTime();
        if (parcel?.BookedAt is { } booked && at <= booked)
            at = booked.AddMilliseconds(1);
        var id = SignedEvents.IdOf($"parcel {carrier}", $"{label} {said.Id}");
        var body = new ParcelTracked(carrier, label, said.Id, said.Step, said.At.ToUniversalTime(), said.Place, said.Says);
        var written = await journal.WriteAsync(number, new(id, at, 0, Actor.Service, body), ct);
        if (written is Written.Declined(var ruling))
            return $"Event {said.Id} was not taken: {ruling}";
        if (said.Step is ParcelStep.Delivered or ParcelStep.Lost or ParcelStep.ComesBack)
            await outbox.FollowedToItsEndAsync(carrier, label, ct);
        return null;
    }
}
