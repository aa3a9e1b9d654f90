using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Tickets;

internal static class TicketsEndpoints
{
    private const int MostOnAPage = 200;
    private const int MostWaiting = 1_000;

    public static void MapTickets(this WebApplication app)
    {
        var tickets = app.MapGroup("/api/tickets").WithTags("Tickets");
        tickets.MapGet("/", List).WithName("ListTickets");
        tickets.MapGet("/waiting", ListWaiting).WithName("ListWaiting");
        tickets.MapGet("/{number:long}", Show).WithName("ShowTicket");
        tickets.MapGet("/{number:long}/journal", Journal).WithName("ShowJournal").Produces<JournalPage>();
        tickets.MapGet("/{number:long}/entries/{seq:long}/moves", PuttingRight).WithName("ListCorrections");
        tickets.MapGet("/{number:long}/proof", Prove).WithName("ProveTicket");
        tickets.MapPost("/{number:long}/entries", Write).WithName("WriteEntry");
        app.MapGet("/api/live", Live).WithTags("Tickets").WithName("Live");
    }

    internal static async Task<Results<Ok<TicketPage>, ProblemHttpResult>> List(
        TicketLines lines,
        ClaimsPrincipal person,
        CancellationToken ct,
        bool? ended = null,
        string? stage = null,
        string? engineer = null,
        string? asset = null,
        string? find = null,
        string? site = null,
        string? customer = null,
        string? danger = null,
        bool overdue = false,
        string? order = null,
        long? before = null,
        int skip = 0,
        int limit = 50
    )
    {
        var asked = new TicketsAsked(ended, stage, engineer, asset, find, site, customer, danger, overdue, order, before, skip, limit);
        if (!asked.Search().Is(out var search, out var reason))
            return Refusals.Unusable(reason);
        var found = await lines.FindAsync(search with { Limit = search.Limit + 1 }, ct);
        var page = found.Take(search.Limit).ToList();
        var names = TurnNames.Of(person.ToActor());
        long? next =
            found.Count <= search.Limit ? null
            : search.Order == TicketOrder.Newest ? page[^1].Number
            : search.Skip + search.Limit;
        var count = await lines.CountAsync(search, TicketPage.MostCounted, ct);
        return TypedResults.Ok(new TicketPage(page, next, [.. page.Select(l => Turns.Of(l, names))], count));
    }

    /// <summary>Nothing that is open is left out: the most dangerous one may be the oldest.</summary>
    internal static async Task<Results<Ok<WaitingView>, ProblemHttpResult>> ListWaiting(
        TicketLines lines,
        ClaimsPrincipal person,
        CancellationToken ct,
        int most = 50
    ) =>
        most is < 1 or > MostWaiting
            ? Refusals.Unusable($"Of each turn 1 to {MostWaiting} tickets are told; {most} were asked for.")
            : TypedResults.Ok(new WaitingView(await lines.WaitingAsync(person.ToActor(), most, TicketPage.MostCounted, ct)));

    /// <param name="haveSheet">The run sheet that whoever asks has already: its steps never change, and are left out then.</param>
    internal static async Task<Results<Tagged<TicketView>, ProblemHttpResult>> Show(
        long number,
        TicketJournal journal,
        TicketViews views,
        ClaimsPrincipal person,
        CancellationToken ct,
        Guid? haveSheet = null
    )
    {
        if (await journal.ReadAsync(number, ct) is not { } record)
            return Refusals.NoTicket(number);
        var view = await views.OfAsync(record, person.ToActor(), ct);
        return new Tagged<TicketView>(
            view.Run is { } run && run.Sheet.Id == haveSheet ? view with { Run = run with { Sheet = run.Sheet with { Steps = [] } } } : view
        );
    }

    /// <summary>Entries as they were written, whether or not this version can read them.</summary>
    internal static async Task<Results<JsonHttpResult<JournalPage>, ProblemHttpResult>> Journal(
        long number,
        TicketJournal journal,
        ClaimsPrincipal person,
        CancellationToken ct,
        long after = 0,
        int limit = MostOnAPage
    )
    {
        if (await journal.ReadAsync(number, ct) is not { } record)
            return Refusals.NoTicket(number);
        var page = record.After(after).Take(Math.Clamp(limit, 1, MostOnAPage)).ToList();
        var unread = page.Where(e => e.Body is Unreadable).Select(e => new UnreadEntry(e.Seq, ((Unreadable)e.Body).Why)).ToList();
        var next = page is [.., var last] && last.Seq < record.Head ? last.Seq : (long?)null;
        return TypedResults.Json(
            new JournalPage(
                page,
                next,
                unread,
                [.. page.Select(e => PutRight.Sentence(record, e))],
                [.. page.SelectMany(e => Corrected(record, e))],
                [.. page.Select(e => JournalRow.Of(e, person.ToActor()))]
            ),
            ContractJson.Default.JournalPage
        );
    }

    private static IEnumerable<CorrectedEntry> Corrected(TicketRecord record, Entry entry) =>
        record.Corrections.Of(entry.Id) is { Body: EntryCorrected correction } right
            ?
            [
                new(
                    entry.Seq,
                    right.Seq,
                    right.By,
                    correction.IsNotSo() ? null : correction.Instead?.Told(),
                    correction.HappenedAt,
                    correction.Because
                ),
            ]
            : [];

    /// <summary>How one entry may be put right by whoever asks.</summary>
    internal static async Task<Results<Ok<MoveList>, ProblemHttpResult>> PuttingRight(
        long number,
        long seq,
        TicketJournal journal,
        ClaimsPrincipal person,
        CancellationToken ct
    ) =>
        await journal.ReadAsync(number, ct) is not { } record ? Refusals.NoTicket(number)
        : record.After(seq - 1).FirstOrDefault(e => e.Seq == seq) is not { } entry
            ? Refusals.NotFound($"{TicketNumber.Text(number)} has no entry {seq}; its last one is {record.Head}.")
        : TypedResults.Ok(new MoveList(number, CorrectionsOffered.On(record, entry, person.ToActor())));

    /// <summary>What a customer can check offline: the ticket's entries, and the way from the last of them to the newest seal.</summary>
    internal static async Task<Results<Ok<TicketProof>, ProblemHttpResult>> Prove(
        long number,
        TicketJournal journal,
        Seals seals,
        CancellationToken ct
    )
    {
        if (await journal.ReadAsync(number, ct) is null)
            return Refusals.NoTicket(number);
        return await seals.ProveAsync(number, ct) switch
        {
            Parsed<TicketProof>.Ok(var proof) => TypedResults.Ok(proof),
            Parsed<TicketProof>.Refused(var reason) => Refusals.Refused(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    internal static async Task<Results<Ok<Receipt>, ProblemHttpResult>> Write(
        long number,
        Sent<EntryAsk> sent,
        TicketJournal journal,
        Returns.Fitting fitting,
        KnownPeople people,
        KnownTickets tickets,
        Returns.KnownAgreements agreements,
        Returns.KnownPlaces places,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var intent = Intents.Of(sent.Message, person.ToActor(), time.GetUtcNow());
        var kept = Returns.KnownPlaces.Named(intent.Body) is null ? null : (await journal.ReadAsync(number, ct))?.Find(intent.Id);
        if (!(await places.MeantAsync(intent.Body, kept?.Body, ct)).Is(out var body, out var noSuchPlace))
            return Refusals.Unusable(noSuchPlace);
        intent = intent with { Body = body };
        if (
            (
                await people.WhyNotAsync(intent.Body, ct)
                ?? await tickets.WhyNotAsync(number, intent.Body, ct)
                ?? await agreements.WhyNotAsync(number, intent, ct)
            )
                is { } nobody
            && (await journal.ReadAsync(number, ct))?.Find(intent.Id) is null // what was taken once is answered as it was
        )
            return Refusals.Unusable(nobody);
        if (intent.Body is PartReserved or EntryCorrected && await journal.ReadAsync(number, ct) is { } record)
        {
            if (!(await JudgedAsync(record, intent, fitting, time.GetUtcNow(), ct)).Is(out var judged, out var reason))
                return Refusals.Refused(reason);
            intent = judged;
        }
        return Receipts.Answer(await journal.WriteAsync(number, intent, ct));
    }

    /// <summary>The part that is set aside by an entry, or that was set aside by the one it puts right.</summary>
    private static PartReserved? PartOf(EntryBody body) => (body is EntryCorrected correction ? correction.Instead : body) as PartReserved;

    /// <summary>What speaks against a part is the service's to say, not the sender's; what was taken once is answered as it was.</summary>
    private static async Task<Parsed<Intent>> JudgedAsync(
        TicketRecord record,
        Intent intent,
        Returns.Fitting fitting,
        DateTimeOffset now,
        CancellationToken ct
    )
    {
        if (Ruling.On(record, intent, now) is Ruling.NotAllowed)
            return new Parsed<Intent>.Ok(intent); // whose it is to say comes before whether it fits, and the journal says that
        if ((PartOf(intent.Body) ?? Corrections.By(record, intent, now).Newly<PartReserved>()) is not { } part)
            return new Parsed<Intent>.Ok(intent);
        var judged =
            record.Find(intent.Id) is { } known && PartOf(known.Body) is { } kept && kept.Serial == part.Serial
                ? new Parsed<PartReserved>.Ok(kept)
                : await fitting.JudgedAsync(record.Ticket, part, ct);
        return !judged.Is(out var so, out var reason) ? new Parsed<Intent>.Refused(reason)
            : intent.Body is not EntryCorrected correction ? new Parsed<Intent>.Ok(intent with { Body = so })
            : correction.Instead is null ? new Parsed<Intent>.Ok(intent) // what was so after all was overruled as it was
            : new Parsed<Intent>.Ok(intent with { Body = correction with { Instead = so } });
    }

    /// <summary>Every new entry as it is kept. A listener that was away says where it was and misses nothing.</summary>
    /// <param name="after">Where it was, for who makes a connection anew and cannot send <c>Last-Event-ID</c>.</param>
    internal static ServerSentEventsResult<LiveEntry> Live(
        LiveFeed feed,
        JournalNews news,
        IHostApplicationLifetime life,
        [FromHeader(Name = "Last-Event-ID")] string? lastEventId,
        CancellationToken ct,
        long? after = null
    ) =>
        TypedResults.ServerSentEvents(
            LiveStream.AfterAsync(feed, news, long.TryParse(lastEventId, out var last) ? last : after, life.ApplicationStopping, ct)
        );
}
