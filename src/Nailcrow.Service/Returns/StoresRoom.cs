using Nailcrow.Client.Returns;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Returns;

/// <summary>What stores does with a part in hand: what a ticket waits for is said on the ticket, all else in the ledger.</summary>
internal sealed class StoresRoom(LedgerBook book, TicketJournal journal, TimeProvider time)
{
    public async Task<ReceiveAnswer> TakeInAsync(InHand scanned, Guid id, Actor actor, CancellationToken ct)
    {
        var hand = scanned with { Serial = scanned.AsRead ? scanned.Serial : await book.MeantAsync(scanned.Serial, ct) };
        var line = await book.LineAsync(hand.Serial, ct);
        var expected = line.Last is null ? await book.NearlyAsync(hand.Serial, ct) : [];
        var alike = line.Last is null ? await book.AlikeAsync(hand.Serial, ct) : [];
        var received = Receiving.Of(hand, line, await WaitingAsync(line, ct), expected, alike, id, actor.Name, time.GetUtcNow());
        return received switch
        {
            Received.OnTicket(var ticket, var body, var says) => await OnTicketAsync(ticket, hand.Serial, body, says, id, actor, ct),
            Received.InLedger(var movement, var says) => await InLedgerAsync(movement, says, ct),
            Received.There(var says) => await AnswerAsync(hand.Serial, says, false, null, ct),
            Received.Ask(var says) => await AnswerAsync(hand.Serial, says, true, null, ct),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    /// <summary>For the ticket that it is set aside for, else into that person's van.</summary>
    public async Task<ReceiveAnswer> HandOutAsync(HandOutAsk ask, Actor actor, CancellationToken ct)
    {
        var line = await book.LineAsync(await book.MeantAsync(ask.Serial, ct), ct);
        if (line.ReservedFor is [var ticket, ..])
            return await OnTicketAsync(
                ticket,
                line.Serial,
                new PartIssued(line.Serial, ask.To),
                $"{line.Serial} is with {ask.To}, for {TicketNumber.Text(ticket)}.",
                ask.Id,
                actor,
                ct
            );
        return line.Holder switch
        {
            null => await UnknownAsync(line.Serial, "Receive it first.", ct),
            { Kind: HolderKind.Depot } from => await InLedgerAsync(
                new(ask.Id, line.Serial, MovementKind.Went, time.GetUtcNow(), actor.Name, new(HolderKind.Van, ask.To)),
                $"{line.Serial} went from {from} into the van of {ask.To}; it is set aside for no ticket.",
                ct
            ),
            var holder => await AnswerAsync(
                line.Serial,
                $"{line.Serial} is {holder.Where()}. What lies in a depot is handed out; if it is in your hand, receive it first.",
                true,
                null,
                ct
            ),
        };
    }

    /// <summary>What no ticket has on the way is written off in the ledger; what one has, on the ticket.</summary>
    public async Task<ReceiveAnswer> WriteOffAsync(WriteOffAsk ask, Actor actor, CancellationToken ct)
    {
        var line = await book.LineAsync(await book.MeantAsync(ask.Serial, ct), ct);
        if (line.Holder is not { } holder)
            return await UnknownAsync(line.Serial, "", ct);
        if (await WaitingAsync(line, ct) is { } ticket && ticket.Custody.HolderOf(line.Serial) is { MayKeep: false })
            return await OnTicketAsync(
                ticket.Number,
                line.Serial,
                new PartLost(line.Serial, ask.Because, ask.OnIt),
                $"{line.Serial} is written off, on {TicketNumber.Text(ticket.Number)}.",
                ask.Id,
                actor,
                ct
            );
        return holder.Kind is HolderKind.Bay or HolderKind.Destroyed or HolderKind.Lost
            ? await AnswerAsync(line.Serial, $"{line.Serial} is {holder.Where()}; nothing is lost there.", true, null, ct)
            : await InLedgerAsync(
                new(
                    ask.Id,
                    line.Serial,
                    MovementKind.Went,
                    time.GetUtcNow(),
                    actor.Name,
                    new(HolderKind.Lost, holder.Name),
                    Note: $"{ask.Because} On it: {ask.OnIt}"
                ),
                $"{line.Serial} is written off; it was {holder.Where()}.",
                ct
            );
    }

    public async Task<ReceiveAnswer> WipedAsync(WipeAsk ask, Actor actor, CancellationToken ct)
    {
        var line = await book.LineAsync(await book.MeantAsync(ask.Serial, ct), ct);
        if (line.Holder is null)
            return await UnknownAsync(line.Serial, "", ct);
        return line.Holder is { Kind: HolderKind.Depot or HolderKind.Van }
            ? await InLedgerAsync(
                new(ask.Id, line.Serial, MovementKind.Wiped, time.GetUtcNow(), actor.Name, Note: ask.Method),
                $"{line.Serial} was wiped; it may go into another machine.",
                ct
            )
            : await AnswerAsync(
                line.Serial,
                $"{line.Serial} is {line.Holder.Where()}; what lies in a depot or a van is wiped here, else on its ticket.",
                true,
                null,
                ct
            );
    }

    /// <summary>What is scanned in one place, held against the ledger; what it has elsewhere is booked here where that is asked for.</summary>
    public async Task<CountAnswer> CountAsync(CountAsk ask, Actor actor, CancellationToken ct)
    {
        var recorded = await book.HeldAsync(ask.At, null, Counted.Most, ct);
        var known = (await book.OfAsync([.. ask.Serials.SelectMany(SerialNumber.Meanings)], ct)).ToDictionary(p => p.Serial);
        var counted = Counted.Of(ask.At, ask.Serials, recorded, known);
        var booked = new List<ReceiveAnswer>();
        if (ask.Book)
            foreach (var found in counted.Found)
                booked.Add(await TakeInAsync(new(found.Serial, ask.At), TicketMovements.IdOf(ask.Id, found.Serial), actor, ct));
        return new(counted, booked);
    }

    private async Task<ReceiveAnswer> UnknownAsync(string serial, string instead, CancellationToken ct) =>
        await AnswerAsync(serial, $"{Receiving.Unknown(serial, await book.AlikeAsync(serial, ct))} {instead}".TrimEnd(), true, null, ct);

    private async Task<Ticket?> WaitingAsync(PartLine line, CancellationToken ct) =>
        line.Movements.LastOrDefault(m => m.Ticket is not null)?.Ticket is { } number
            ? (await journal.ReadAsync(number, ct))?.Ticket
            : null;

    private async Task<ReceiveAnswer> OnTicketAsync(
        long ticket,
        string serial,
        EntryBody body,
        string says,
        Guid id,
        Actor actor,
        CancellationToken ct
    ) =>
        await journal.WriteAsync(ticket, Intents.By(actor, body, time.GetUtcNow(), id), ct) switch
        {
            Written.Kept => await AnswerAsync(serial, says, false, ticket, ct),
            Written.Declined(var ruling) => await AnswerAsync(serial, $"{TicketNumber.Text(ticket)}: {Said(ruling)}", true, ticket, ct),
            Written.IdTaken(var reason) => await AnswerAsync(serial, reason, true, ticket, ct),
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    private static string Said(Ruling ruling) =>
        ruling switch
        {
            Ruling.Unusable(var reason) => reason,
            Ruling.Refused(var reason) => reason,
            Ruling.NotAllowed(var reason) => reason,
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    private async Task<ReceiveAnswer> InLedgerAsync(Movement movement, string says, CancellationToken ct)
    {
        await book.WriteAsync([movement], ct);
        return await AnswerAsync(movement.Serial, says, false, null, ct);
    }

    private async Task<ReceiveAnswer> AnswerAsync(string serial, string says, bool asks, long? ticket, CancellationToken ct) =>
        new(SerialNumber.Normalise(serial), says, asks, ticket, (await book.OfAsync([serial], ct)).FirstOrDefault());
}
