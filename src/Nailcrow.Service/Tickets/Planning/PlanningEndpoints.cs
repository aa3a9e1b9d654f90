using System.Security.Claims;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Tickets.Planning;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Documents;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.Host.Wire;
using Nailcrow.Service.People;
using Nailcrow.Store.People;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Tickets.Planning;

/// <summary>What comes first, who goes there, and in which order.</summary>
internal static class PlanningEndpoints
{
    public static void MapPlanning(this WebApplication app)
    {
        var planning = app.MapGroup("/api").WithTags("Planning");
        planning.MapGet("/desk", Desk).WithName("ShowDesk");
        planning.MapGet("/days/{engineer}", Day).WithName("ShowDay");
        planning.MapGet("/calendars/{key}", Calendar).WithName("ShowCalendar").AllowAnonymous();
    }

    /// <summary>Open tickets, what comes first on top, with who could take those that nobody has; narrowed and paged as any list of tickets.</summary>
    internal static async Task<Results<Ok<DeskView>, ProblemHttpResult>> Desk(
        Desks desks,
        ClaimsPrincipal person,
        CancellationToken ct,
        string? stage = null,
        string? engineer = null,
        string? asset = null,
        string? find = null,
        string? site = null,
        string? customer = null,
        string? danger = null,
        bool overdue = false,
        string? order = null,
        int skip = 0,
        int limit = 50
    )
    {
        var first = order ?? Words.Of(TicketOrder.Worst);
        var asked = new TicketsAsked(false, stage, engineer, asset, find, site, customer, danger, overdue, first, null, skip, limit);
        return asked.Search().Is(out var search, out var reason)
            ? TypedResults.Ok(await desks.DeskAsync(search, person.ToActor(), ct))
            : Refusals.Unusable(reason);
    }

    internal static async Task<Ok<DayView>> Day(
        string engineer,
        Desks desks,
        CalendarKeys keys,
        OurAddress us,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var day = await desks.DayAsync(engineer, ct);
        // The feed's address is its key, so only its owner and those who plan are told it.
        var mayKnow = person.Identity?.Name == engineer || person.IsInRole("dispatcher") || person.IsInRole("lead");
        return TypedResults.Ok(
            day with
            {
                Calendar = mayKnow ? us.Of($"api/calendars/{await keys.OfAsync(engineer, ct)}.ics").AbsoluteUri : "",
            }
        );
    }

    /// <summary>An engineer's visits as iCalendar. A calendar program cannot sign in, so the address itself is the key.</summary>
    internal static async Task<Results<ContentHttpResult, ProblemHttpResult>> Calendar(
        string key,
        CalendarKeys keys,
        TicketLines lines,
        PeopleBook people,
        TimeProvider time,
        OurAddress us,
        CancellationToken ct
    )
    {
        // The address outlives every sign-in; whoever may not come in any more reads nothing by it either.
        if (
            await keys.EngineerOfAsync(key.EndsWith(".ics", StringComparison.Ordinal) ? key[..^4] : key, ct) is not { } engineer
            || await people.FindAsync(engineer, ct) is not { DisabledAt: null }
        )
            return Refusals.NotFound("There is no such calendar.");
        var visits = await lines.VisitsAsync(engineer, time.GetUtcNow().AddDays(-90), ct);
        return TypedResults.Text(VisitCalendar.Of(engineer, visits, number => us.Of($"tickets/{number}")), "text/calendar", Encoding.UTF8);
    }
}
