using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Service.Host;
using Nailcrow.Service.People;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Tickets;

internal static class TicketsEndpoints
{
    private const int MostOnAPage = 200;
    private const int MostWaiting = 1_000;

    // A firm with more open tickets than this has another trouble than their order.
    private const int MostOpen = 20_000;

    public static void MapTickets(this WebApplication app)
    {
        var tickets = app.MapGroup("/api/tickets").WithTags("Tickets");
        tickets.MapGet("/", List).WithName("ListTickets");
        tickets.MapGet("/waiting", ListWaiting).WithName("ListWaiting");
        tickets.MapGet("/{number:long}", Show).WithName("ShowTicket");
        tickets.MapGet("/{number:long}/journal", Journal).WithName("ShowJournal").Produces<JournalPage>();
        tickets.MapGet("/{number:long}/proof", Prove).WithName("ProveTicket");
        tickets.MapPost("/{number:long}/entries", Write).WithName("WriteEntry");
        app.MapGet("/api/live", Live).WithTags("Tickets").WithName("Live");
    }

    internal static async Task<Results<Ok<TicketPage>, ProblemHttpResult>> List(
        TicketLines lines,
        ClaimsPrincipal person,
        TimeProvider time,
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
        if (!asked.Search(time.GetUtcNow()).Is(out var search, out var reason))
            return Refusals.Unusable(reason);
        var found = await lines.FindAsync(search with { Limit = search.Limit + 1 }, ct);
        var page = found.Take(search.Limit).ToList();
        var actor = person.ToActor();
        long? next =
            found.Count <= search.Limit ? null
            : search.Order == TicketOrder.Newest ? page[^1].Number
            : search.Skip + search.Limit;
        var count = await lines.CountAsync(search, TicketPage.MostCounted, ct);
        return TypedResults.Ok(new TicketPage(page, next, [.. page.Select(l => Turns.Of(l, actor))], count));
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
            : TypedResults.Ok(new WaitingView(WhatWaits.For(person.ToActor(), await lines.OpenAsync(null, MostOpen, ct), most)));

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
            new JournalPage(page, next, unread, [.. page.Select(e => e.Body.Told())]),
            ContractJson.Default.JournalPage
        );
    }

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
        EntryAsk ask,
        TicketJournal journal,
        Returns.Fitting fitting,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var intent = Intents.Of(ask, person.ToActor(), time.GetUtcNow());
        // What speaks against a part is the service's to say, not the sender's.
        if (intent.Body is Core.Returns.PartReserved part && await journal.ReadAsync(number, ct) is { } record)
            switch (
                record.Find(intent.Id) is { Body: Core.Returns.PartReserved kept } && kept.Serial == part.Serial
                    ? new Parsed<Core.Returns.PartReserved>.Ok(kept)
                    : await fitting.JudgedAsync(record.Ticket, part, ct)
            )
            {
                case Parsed<Core.Returns.PartReserved>.Ok(var judged):
                    intent = intent with { Body = judged };
                    break;
                case Parsed<Core.Returns.PartReserved>.Refused(var reason):
                    return Refusals.Refused(reason);
            }
        return Receipts.Answer(await journal.WriteAsync(number, intent, ct));
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
