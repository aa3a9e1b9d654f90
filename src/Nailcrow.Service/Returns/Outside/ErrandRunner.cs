using System.Text.Json;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Service.Returns.Outside.Mail;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Returns.Outside;

/// <summary>Does one errand: says it, and writes down what was answered before it counts as done.</summary>
internal sealed class ErrandRunner(
    Outbox outbox,
    Partners partners,
    PartnerCalls calls,
    TicketJournal journal,
    ReferenceBook book,
    LetterSender letters,
    OutsideSettings settings,
    TimeProvider time,
    ILogger<ErrandRunner> log
)
{
    public async Task RunAsync(ErrandNow now, CancellationToken ct)
    {
        if (await journal.ReadAsync(now.Ticket, ct) is not { } record || !now.Errand.IsWanted(record.Ticket))
            await outbox.EndAsync(now.Errand.Id, ErrandState.NotWanted, now.Says, ct, now.Label);
        else if (now.Errand.Kind == ErrandKind.SendMail)
            await SendMailAsync(now, record, ct);
        else if (await partners.FindAsync(now.Errand.To, Kind(now.Errand), ct) is not { } partner)
            await LaterAsync(
                now,
                $"No {Words.Of(Kind(now.Errand))} is called {now.Errand.To} any more; an administrator adds it again.",
                null,
                ct
            );
        else if (now.Errand.Kind == ErrandKind.AskCarrier)
            await AskCarrierAsync(now, partner, record.Ticket, ct);
        else if (now.Errand.Kind == ErrandKind.CallOffCarrier)
            await CallOffAsync(now, partner, record.Ticket, ct);
        else
            await AskMakerAsync(now, partner, record.Ticket, ct);
    }

    private static PartnerKind Kind(Errand errand) => errand.Kind == ErrandKind.AskMaker ? PartnerKind.Maker : PartnerKind.Carrier;

    private async Task AskCarrierAsync(ErrandNow now, Partner carrier, Ticket ticket, CancellationToken ct)
    {
        var parcel = ticket.Parcels.First(p => p.Asked == now.Errand.About);
        var ask = new BookingAsk(
            parcel.Asked,
            TicketNumber.Text(ticket.Number),
            await FromAsync(ticket, ct),
            new(parcel.To.Name),
            parcel.Serials,
            parcel.CollectOn
        );
        var body = JsonSerializer.SerializeToUtf8Bytes(ask, OutsideJson.Default.BookingAsk);
        switch (await calls.AskAsync(carrier, HttpMethod.Post, "/bookings", now.Errand.Id, body, OutsideJson.Default.BookingAnswer, ct))
        {
            case Heard<BookingAnswer>.Answer(var booked) when AnswerCheck.Problem(booked, time.GetUtcNow()) is { } wrong:
                await LaterAsync(now, $"{carrier.Name} answered what is no answer: {wrong}", null, ct);
                break;
            case Heard<BookingAnswer>.Answer(var booked)
                when await outbox.HasLabelAsync(carrier.Name, booked.Label.Trim(), now.Errand.Id, ct):
                await LaterAsync(
                    now,
                    $"{carrier.Name} answered what is no answer: its number {booked.Label.Trim()} is another box's already.",
                    null,
                    ct
                );
                break;
            case Heard<BookingAnswer>.Answer(var booked):
                await WriteAsync(now, new CarrierAnswered(parcel.Asked, carrier.Name, booked.Label.Trim(), booked.CollectsOn), ct);
                await outbox.EndAsync(
                    now.Errand.Id,
                    ErrandState.Done,
                    $"booked as {booked.Label.Trim()}",
                    ct,
                    booked.Label.Trim(),
                    time.GetUtcNow().AddSeconds(settings.AskEverySeconds)
                );
                break;
            case Heard<BookingAnswer>.No(var why):
                await WriteAsync(now, new CarrierAnswered(parcel.Asked, carrier.Name, Refused: why), ct);
                await outbox.EndAsync(now.Errand.Id, ErrandState.Done, $"refused: {why}", ct);
                break;
            case Heard<BookingAnswer>.Trouble(var says, var after):
                await LaterAsync(now, says, after, ct);
                break;
        }
    }

    private async Task SendMailAsync(ErrandNow now, TicketRecord record, CancellationToken ct)
    {
        if (await partners.OfMailAsync(Math.Max(0, now.Tries - 1), ct) is not { } mail)
        {
            await LaterAsync(now, "No mail server is known any more; an administrator adds one again.", null, ct);
            return;
        }
        switch (await letters.SendAsync(mail, record, record.Ticket.Letters.First(l => l.Asked == now.Errand.About), ct))
        {
            case Heard<LetterWent>.Answer(var went):
                await WriteAsync(now, went, ct);
                await outbox.EndAsync(now.Errand.Id, ErrandState.Done, went.Refused is { } why ? $"refused: {why}" : "sent", ct);
                break;
            case Heard<LetterWent>.Trouble(var says, var after):
                await LaterAsync(now, says, after, ct);
                break;
        }
    }

    private async Task CallOffAsync(ErrandNow now, Partner carrier, Ticket ticket, CancellationToken ct)
    {
        var parcel = ticket.Parcels.Find(p => p.Asked == now.Errand.About);
        var path = $"/bookings/{now.Errand.About}/call-off";
        switch (await calls.AskAsync(carrier, HttpMethod.Post, path, now.Errand.Id, "{}"u8.ToArray(), OutsideJson.Default.JsonElement, ct))
        {
            case Heard<JsonElement>.Answer:
                if (parcel is not null)
                    await WriteAsync(now, CarrierAnswered.CalledOff(now.Errand.About, carrier.Name), ct);
                await outbox.EndAsync(now.Errand.Id, ErrandState.Done, "called off", ct);
                break;
            case Heard<JsonElement>.No(var why):
                // What is there already came with them after all; else they come for nothing, and somebody has to tell them.
                var isThere =
                    parcel is not null && ticket.Returns.Exists(r => parcel.Serials.Contains(r.Serial) && r.ArrivedAt is not null);
                await outbox.EndAsync(
                    now.Errand.Id,
                    isThere ? ErrandState.Done : ErrandState.GivenUp,
                    $"{carrier.Name} does not call it off: {why}",
                    ct
                );
                break;
            case Heard<JsonElement>.Trouble(var says, var after):
                await LaterAsync(now, says, after, ct);
                break;
        }
    }

    private async Task AskMakerAsync(ErrandNow now, Partner maker, Ticket ticket, CancellationToken ct)
    {
        var claim = ticket.Claims.First(c => c.Asked == now.Errand.About);
        var fault = claim.Question == MakerQuestion.Warranty ? null : claim.Fault ?? ticket.Report?.Symptom;
        var ask = new ClaimAsk(claim.Asked, claim.Serial, claim.Question, Target.SeenAs(ticket, claim.Serial)?.Model, fault);
        var body = JsonSerializer.SerializeToUtf8Bytes(ask, OutsideJson.Default.ClaimAsk);
        switch (await calls.AskAsync(maker, HttpMethod.Post, "/claims", now.Errand.Id, body, OutsideJson.Default.ClaimAnswer, ct))
        {
            case Heard<ClaimAnswer>.Answer({ UnderReview: true } reviewed):
                // They look at it: that is no trouble, and is asked for again for as long as it takes.
                await outbox.LaterAsync(
                    now.Errand.Id,
                    time.GetUtcNow().AddSeconds(settings.AskEverySeconds),
                    $"{maker.Name} looks at it{(string.IsNullOrWhiteSpace(reviewed.Says) ? "" : $": {PartnerCalls.Shown(reviewed.Says)}")}",
                    0,
                    ct
                );
                break;
            case Heard<ClaimAnswer>.Answer(var said) when AnswerCheck.Problem(said, claim) is { } wrong:
                await LaterAsync(now, $"{maker.Name} answered what is no answer: {wrong}", null, ct);
                break;
            case Heard<ClaimAnswer>.Answer(var said):
                await WriteAsync(
                    now,
                    new MakerAnswered(
                        claim.Asked,
                        claim.Serial,
                        maker.Name,
                        said.Warranty,
                        said.Authorisation?.Trim(),
                        said.DueBy,
                        said.Refused,
                        said.Says,
                        said.LateCost
                    ),
                    ct
                );
                await outbox.EndAsync(now.Errand.Id, ErrandState.Done, "answered", ct);
                break;
            case Heard<ClaimAnswer>.No(var why):
                await WriteAsync(now, new MakerAnswered(claim.Asked, claim.Serial, maker.Name, Refused: why), ct);
                await outbox.EndAsync(now.Errand.Id, ErrandState.Done, $"refused: {why}", ct);
                break;
            case Heard<ClaimAnswer>.Trouble(var says, var after):
                await LaterAsync(now, says, after, ct);
                break;
        }
    }

    /// <summary>Where the box is fetched: the machine's site, with what one has to know to get in.</summary>
    private async Task<PlaceToCall> FromAsync(Ticket ticket, CancellationToken ct)
    {
        var report = ticket.Report ?? FaultReported.Lost;
        var site = (await book.FindAsync(report.Asset, ct))?.Site;
        return new($"{report.Customer}, {report.Site}", site?.Address, site?.Access);
    }

    /// <summary>One errand, one entry: however often it is said, its answer is written once.</summary>
    private async Task WriteAsync(ErrandNow now, EntryBody body, CancellationToken ct)
    {
        var id = SignedEvents.IdOf("outbox", now.Errand.Id.ToString());
        switch (await journal.WriteAsync(now.Ticket, new(id, time.GetUtcNow(), 0, Actor.Service, body), ct))
        {
            case Written.Declined declined:
                log.LogError("What came of errand {Errand} was not taken on its ticket: {Why}", now.Errand.Id, declined.Ruling);
                break;
        }
    }

    internal Task LaterAsync(ErrandNow now, string says, TimeSpan? after, CancellationToken ct)
    {
        if (now.Tries >= settings.Tries)
            return outbox.EndAsync(now.Errand.Id, ErrandState.GivenUp, says, ct);
        var pause = settings.PauseAfter(now.Tries);
        return outbox.LaterAsync(
            now.Errand.Id,
            time.GetUtcNow() + (after > pause && after < TimeSpan.FromDays(1) ? after.Value : pause),
            says,
            now.Tries,
            ct
        );
    }
}
