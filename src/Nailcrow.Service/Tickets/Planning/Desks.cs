using Nailcrow.Client.Tickets;
using Nailcrow.Client.Tickets.Planning;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Service.Procedures;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.People;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Tickets.Planning;

/// <summary>The dispatcher's desk and the engineer's day.</summary>
internal sealed class Desks(TicketLines lines, ReferenceBook book, PeopleBook people, ProcedureLibrary procedures, TimeProvider time)
{
    // Nobody drives to more in a day.
    private const int MostInADay = 500;
    private const int MostCandidates = 3;

    /// <param name="search">Which of all open tickets, one more than the page holds.</param>
    public async Task<DeskView> DeskAsync(TicketSearch search, Actor actor, CancellationToken ct)
    {
        var now = time.GetUtcNow();
        var found = await lines.FindAsync(search with { Limit = search.Limit + 1 }, ct);
        var page = found.Take(search.Limit).ToList();
        var all = (await people.AllAsync(ct)).Where(p => p.Roles().Contains(Role.Engineer) || p.DisabledAt is not null).ToList();
        var engineers = all.Where(p => p.DisabledAt is null).ToList();
        var theirs = (await lines.LoadsAsync([.. all.Select(e => e.Name)], ct)).ToLookup(l => l.Engineer);
        var sites = await book.SitesAsync(ct);
        return new(
            [
                .. page.Select(l => new DeskLine(
                    l,
                    Priority.Of(l, now),
                    l.Engineer is null ? Candidates(l, engineers, theirs, sites, actor) : []
                )),
            ],
            [
                .. all.Select(e => new EngineerLoad(
                        e.Name,
                        e.FullName,
                        theirs[e.Name].Sum(l => l.Open),
                        theirs[e.Name].Sum(l => l.Visits),
                        e.DisabledAt is not null
                    ))
                    .Where(e => !e.Out || e.Open > 0)
                    .OrderByDescending(e => e.Out)
                    .ThenBy(e => e.Open)
                    .ThenBy(e => e.Engineer),
            ],
            found.Count > search.Limit ? search.Skip + search.Limit : null,
            await lines.CountAsync(search, TicketPage.MostCounted, ct),
            await lines.CountAsync(search with { Nobodys = true }, TicketPage.MostCounted, ct),
            await procedures.NotUsedAsync(ct)
        );
    }

    public async Task<DayView> DayAsync(string engineer, CancellationToken ct)
    {
        var now = time.GetUtcNow();
        var sites = await book.SitesAsync(ct);
        var mine = await lines.FindAsync(new(Ended: false, Engineer: engineer, Order: TicketOrder.Worst, Limit: MostInADay), ct);
        var timed = mine.Where(l => l.VisitFrom is not null).OrderBy(l => l.VisitFrom).ToList();
        var rest = mine.Except(timed).ToList();
        // From where the last timed visit ends, or from what comes first.
        var start = (timed.LastOrDefault() ?? rest.FirstOrDefault()) is { } first ? sites.GetValueOrDefault(first.Site) : null;
        var way = start is null
            ? []
            : TravelOrder
                .Of(start, [.. rest.Select(l => sites.GetValueOrDefault(l.Site)).OfType<Site>().Distinct()])
                .Select((s, i) => (s.Name, i))
                .ToDictionary(s => s.Name, s => s.i);
        var ordered = timed.Concat(rest.OrderBy(l => way.GetValueOrDefault(l.Site, int.MaxValue))).ToList();
        return new(
            engineer,
            [.. ordered.Select((l, i) => new Stop(l, Priority.Of(l, now), i == 0 ? null : Km(ordered[i - 1], l, sites)))],
            ""
        );
    }

    private static IReadOnlyList<Candidate> Candidates(
        TicketLine line,
        IReadOnlyList<Person> engineers,
        ILookup<string, OpenAtSite> theirs,
        IReadOnlyDictionary<string, Site> sites,
        Actor actor
    )
    {
        var there = sites.GetValueOrDefault(line.Site);
        return
        [
            .. engineers
                .Select(e =>
                {
                    var near = there is null
                        ? default
                        : theirs[e.Name]
                            .Select(l => (l.Site, Km: sites.GetValueOrDefault(l.Site) is { } s ? TravelOrder.Km(s, there) : null))
                            .Where(n => n.Km is not null)
                            .OrderBy(n => n.Km)
                            .FirstOrDefault();
                    var whyNot = EngineerAssigned.WhyNot(line.Number, line.Engineer, e.Name, actor);
                    return new Candidate(
                        e.Name,
                        theirs[e.Name].Sum(l => l.Open),
                        near.Km is { } km ? Math.Round(km) : null,
                        near.Site,
                        whyNot
                    );
                })
                .OrderBy(c => Cost(c))
                .ThenBy(c => c.Engineer, StringComparer.Ordinal)
                .Take(MostCandidates),
        ];
    }

    // One more open ticket weighs as much as 100 km of way; who goes nowhere yet starts from afar.
    private static double Cost(Candidate candidate) => candidate.Load * 100 + (candidate.Km ?? 300);

    private static double? Km(TicketLine a, TicketLine b, IReadOnlyDictionary<string, Site> sites) =>
        sites.TryGetValue(a.Site, out var from) && sites.TryGetValue(b.Site, out var to) && TravelOrder.Km(from, to) is { } km
            ? Math.Round(km)
            : null;
}
