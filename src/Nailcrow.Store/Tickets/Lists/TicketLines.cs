using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Tickets.Lists;

/// <summary>Lists of tickets. What an index orders costs the page it shows; a part of a word is looked for from the newest back.</summary>
public sealed class TicketLines(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    public async Task<IReadOnlyList<TicketLine>> FindAsync(TicketSearch search, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var lines = Narrowed(db, search, await HowToFindAsync(db, search, ct));
        if (search.Order == TicketOrder.Worst)
            return await ByPriority.PageAsync(lines, search.Ended, time.GetUtcNow(), search.Skip, search.Limit, Line, ct);
        var ordered =
            search.Order == TicketOrder.DueFirst
                ? lines.OrderBy(l => l.DueOrder).ThenBy(l => l.Number)
                : lines.OrderByDescending(l => l.Number);
        return [.. (await ordered.Skip(search.Skip).Take(search.Limit).ToListAsync(ct)).Select(Line)];
    }

    /// <summary>What waits for a person, for anybody, and what is with others; so many of each, what comes first on top.</summary>
    /// <param name="counted">They are counted no further than this.</param>
    public async Task<IReadOnlyList<WaitingGroup>> WaitingAsync(Actor actor, int most, int counted, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var (yours, anybodys) = TurnNames.Of(actor);
        var open = db.TicketLines.AsNoTracking().Where(l => !l.Ended);
        var groups = new List<WaitingGroup>();
        foreach (var turn in Enum.GetValues<Turn>())
        {
            var theirs = turn switch
            {
                Turn.Yours => open.Where(l => l.HoldReason == null && yours.Contains(l.NextWho)),
                Turn.Anybodys => open.Where(l => l.HoldReason == null && anybodys.Contains(l.NextWho)),
                _ => open.Where(l => l.HoldReason != null || (!yours.Contains(l.NextWho) && !anybodys.Contains(l.NextWho))),
            };
            var first = await ByPriority.PageAsync(theirs, ended: false, time.GetUtcNow(), skip: 0, most, Line, ct);
            groups.Add(new(turn, first.Count < most ? first.Count : await theirs.Take(counted).CountAsync(ct), first));
        }
        return groups;
    }

    /// <summary>What each of these engineers has open: how many, where, and how many visits of it are still to come.</summary>
    public async Task<IReadOnlyList<OpenAtSite>> LoadsAsync(IReadOnlyCollection<string> engineers, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        return await db
            .TicketLines.AsNoTracking()
            .Where(l => engineers.Contains(l.Engineer!) && !l.Ended)
            .GroupBy(l => new { l.Engineer, l.Site })
            .Select(g => new OpenAtSite(g.Key.Engineer!, g.Key.Site, g.Count(), g.Count(l => l.VisitTo > now)))
            .ToListAsync(ct);
    }

    /// <summary>How many there are, counted no further than so many.</summary>
    public async Task<int> CountAsync(TicketSearch search, int most, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await Narrowed(db, search with { Before = null }, await HowToFindAsync(db, search, ct)).Take(most).CountAsync(ct);
    }

    /// <summary>Open tickets of these appliances, and ended ones that changed after a moment, each with the array it is about.</summary>
    public async Task<IReadOnlyList<(TicketLine Line, string? Array, bool Ended)>> AtAsync(
        IReadOnlyCollection<string> assets,
        DateTimeOffset changedAfter,
        CancellationToken ct
    )
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var rows = await db
            .TicketLines.AsNoTracking()
            .Where(l => assets.Contains(l.Asset) && (!l.Ended || l.ChangedAt > changedAfter))
            .ToListAsync(ct);
        return [.. rows.Select(r => (Line(r), r.Array, Line(r).HasEnded))];
    }

    /// <summary>The number of the newest ticket of one appliance, open or not; 0 where it never had one.</summary>
    public async Task<long> NewestAtAsync(string asset, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.TicketLines.Where(l => l.Asset == asset).MaxAsync(l => (long?)l.Number, ct) ?? 0;
    }

    /// <summary>The open tickets of one appliance, the newest first.</summary>
    public async Task<IReadOnlyList<TicketLine>> OpenAtAsync(string asset, int most, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var lines = new List<TicketLine>();
        await foreach (var row in OpenAt(db, asset, most).WithCancellation(ct))
            lines.Add(Line(row));
        return lines;
    }

    // Compiled once: each look at a ticket asks it.
    private static readonly Func<NailcrowDb, string, int, IAsyncEnumerable<TicketLineRow>> OpenAt = EF.CompileAsyncQuery(
        (NailcrowDb db, string asset, int most) =>
            db.TicketLines.AsNoTracking().Where(l => !l.Ended && l.Asset == asset).OrderByDescending(l => l.Number).Take(most)
    );

    /// <summary>An engineer's visits that end after a moment, in order.</summary>
    public async Task<IReadOnlyList<TicketLine>> VisitsAsync(string engineer, DateTimeOffset after, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return
        [
            .. (
                await db
                    .TicketLines.AsNoTracking()
                    .Where(l => l.Engineer == engineer && l.VisitFrom != null && l.VisitTo > after)
                    .OrderBy(l => l.VisitFrom)
                    .Take(500)
                    .ToListAsync(ct)
            ).Select(Line),
        ];
    }

    /// <summary>These tickets.</summary>
    public async Task<IReadOnlyList<TicketLine>> OfAsync(IReadOnlyCollection<long> numbers, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return [.. (await db.TicketLines.AsNoTracking().Where(l => numbers.Contains(l.Number)).ToListAsync(ct)).Select(Line)];
    }

    /// <summary>Tickets whose rebuild is to be followed.</summary>
    public async Task<IReadOnlyList<long>> WatchedAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.TicketLines.Where(l => l.Watched).Select(l => l.Number).ToListAsync(ct);
    }

    private enum Finding
    {
        /// <summary>By the index of parts: what few tickets have.</summary>
        ByParts,

        /// <summary>One by one in the order that is asked for: what many have is soon enough for a page, and gathering it is not.</summary>
        OneByOne,
    }

    // Where so many of the newest have it, many have it.
    private const int Newest = 1_000;
    private const int Many = 100;

    private static async Task<Finding> HowToFindAsync(NailcrowDb db, TicketSearch search, CancellationToken ct)
    {
        if (search.Find?.Trim() is not { Length: >= TicketParts.Least } find)
            return Finding.OneByOne;
        var newest = db.TicketLines.AsNoTracking().OrderByDescending(l => l.Number).Take(Newest);
        return await Found(newest, find).Take(Many).CountAsync(ct) < Many ? Finding.ByParts : Finding.OneByOne;
    }

    private IQueryable<TicketLineRow> Narrowed(NailcrowDb db, TicketSearch search, Finding how)
    {
        IQueryable<TicketLineRow> lines = db.TicketLines.AsNoTracking();
        if (search.Ended is { } ended)
            lines = lines.Where(l => l.Ended == ended);
        if (search.Stage is { } stage)
            lines = lines.Where(l => l.Stage == stage);
        if (search.Engineer is { } engineer)
            lines = lines.Where(l => l.Engineer == engineer);
        if (search.Nobodys)
            lines = lines.Where(l => l.Engineer == null);
        if (search.Asset is { } asset)
            lines = lines.Where(l => l.Asset == asset);
        if (search.Before is { } before)
            lines = lines.Where(l => l.Number < before);
        if (search.Site is { } site)
            lines = lines.Where(l => EF.Functions.Like(l.Site, AnyPart.Of(site), AnyPart.Escape));
        if (search.Customer is { } customer)
            lines = lines.Where(l => EF.Functions.Like(l.Customer, AnyPart.Of(customer), AnyPart.Escape));
        if (search.Overdue)
        {
            var now = time.GetUtcNow().UtcTicks;
            lines = lines.Where(l => !l.Ended && l.DueOrder < now);
        }
        lines = search.Danger switch
        {
            DangerSought.DataLost => lines.Where(l => l.Margin < 0),
            DangerSought.NoMargin => lines.Where(l => l.Margin == 0),
            DangerSought.SomeMargin => lines.Where(l => l.Margin > 0),
            DangerSought.NotKnown => lines.Where(l => l.Margin == null),
            _ => lines,
        };
        return search.Find?.Trim() is not { } find ? lines
            : how == Finding.ByParts ? TicketParts.Of(db, lines, find)
            : Found(lines, find);
    }

    private static IQueryable<TicketLineRow> Found(IQueryable<TicketLineRow> lines, string text)
    {
        var number = TicketNumber.Parse(text) is Parsed<long>.Ok(var said) ? said : -1;
        var within = AnyPart.Of(text);
        return lines.Where(l =>
            l.Number == number
            || EF.Functions.Like(l.Asset, within, AnyPart.Escape)
            || EF.Functions.Like(l.Serial!, within, AnyPart.Escape) // no serial is like nothing
            || EF.Functions.Like(l.Site, within, AnyPart.Escape)
            || EF.Functions.Like(l.Customer, within, AnyPart.Escape)
        );
    }

    private static TicketLine Line(TicketLineRow row) =>
        new(
            row.Number,
            row.Asset,
            row.Model,
            row.Customer,
            row.Site,
            row.Symptom,
            row.Bay,
            row.Serial,
            row.Stage,
            row.Margin,
            row.Danger,
            row.Engineer,
            new(row.NextWho, row.Next, row.NextMove),
            row.HoldReason,
            row.Escalated,
            row.ReceivedAt,
            row.ChangedAt,
            row.AtWorst,
            row.Help,
            row.DueAt,
            row.Due,
            row.VisitFrom,
            row.VisitTo
        );
}

/// <summary>What an engineer has open at one site.</summary>
public sealed record OpenAtSite(string Engineer, string Site, int Open, int Visits);
