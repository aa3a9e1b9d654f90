using System.Globalization;
using System.Runtime.CompilerServices;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store.People;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Returns.Supplies;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.People.Leaving;

/// <summary>Somebody leaves: what they lead and hold is somebody else's first.</summary>
internal static class LeavingEndpoints
{
    private const int MostTold = 200;

    public static void MapLeaving(this RouteGroupBuilder api, RouteGroupBuilder care)
    {
        api.MapGet("/people/{name}/holds", Holds).WithName("ListHeld");
        api.MapPost("/people/{name}/hand-over", HandOver).WithName("HandOverAll").NotByKey().Takes(Permission.HandOverAll);
        care.MapPost("/{name}/leave", Leave).WithName("PersonLeaves");
    }

    internal static async Task<Results<Ok<PersonHolds>, ProblemHttpResult>> Holds(
        string name,
        PeopleBook people,
        Held held,
        CancellationToken ct
    ) => await people.FindAsync(name, ct) is null ? PeopleEndpoints.Nobody(name) : TypedResults.Ok(await held.ByAsync(name, MostTold, ct));

    /// <summary>Each open ticket they lead, by an entry of whoever asks: what the roles do not allow is told, and stays.</summary>
    internal static async Task<Results<Ok<HandedOverAll>, ProblemHttpResult>> HandOver(
        string name,
        Sent<HandOverAsk> sent,
        HttpContext http,
        PeopleBook people,
        Held held,
        TicketJournal journal,
        KnownPeople known,
        TimeProvider time,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (await people.FindAsync(name, ct) is null)
            return PeopleEndpoints.Nobody(name);
        var (actor, body) = (http.User.ToActor(), new HandedOver(name, ask.To, ask.Note));
        if (await known.WhyNotAsync(body, ct) is { } whyNot)
            return Refusals.Unusable(whyNot);
        var (done, refused) = (new List<long>(), new List<string>());
        await foreach (var ticket in held.LedBy(name, ct))
        {
            var now = time.GetUtcNow();
            switch (await journal.WriteAsync(ticket.Number, new Intent(Guid.CreateVersion7(now), now, 0, actor, body), ct))
            {
                case Written.Kept:
                    done.Add(ticket.Number);
                    break;
                case var declined:
                    refused.Add($"{TicketNumber.Text(ticket.Number)}: {Refusals.Of(declined).ProblemDetails.Detail}");
                    break;
            }
        }
        return TypedResults.Ok(new HandedOverAll(name, ask.To, done, refused));
    }

    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> Leave(
        string name,
        Sent<PersonOut> sent,
        HttpContext http,
        PeopleBook people,
        Held held,
        Standings standings,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (PeopleEndpoints.WhyNoReason(ask) is { } whyNot)
            return Refusals.Unusable(whyNot);
        var still = await held.ByAsync(name, MostTold, ct);
        return still.Nothing
            ? await PeopleEndpoints.ChangedAsync(
                name,
                people,
                standings,
                () => people.DisableAsync(http.Doer(), name, ask.Because.Trim(), leaves: true, ct),
                ct
            )
            : Refusals.Refused(Sentence(name, still));
    }

    private static string Sentence(string name, PersonHolds still)
    {
        string[] has =
        [
            .. Some(still.Tickets.Select(t => TicketNumber.Text(t.Number)), "leads"),
            .. Some(still.Parts.Select(p => p.Serial), "holds"),
            .. Some(still.Supplies, "has in the van"),
        ];
        return $"{name} {string.Join(" and ", has)}. Hand the tickets over, and have stores take back or move the rest; "
            + "to keep somebody out at once, disable them instead.";
    }

    private static IEnumerable<string> Some(IEnumerable<string> names, string verb)
    {
        const int Told = 5;
        var all = names.ToList();
        if (all.Count > 0)
            yield return $"{verb} {string.Join(", ", all.Take(Told))}"
                + (all.Count > Told ? string.Create(CultureInfo.InvariantCulture, $" and {all.Count - Told} more") : "");
    }
}

/// <summary>What a person leads and holds.</summary>
internal sealed class Held(TicketLines lines, LedgerBook ledger, SupplyBook supplies)
{
    /// <summary>Every open ticket they lead, newest first, however many there are: what is handed over meanwhile does not move the rest.</summary>
    public async IAsyncEnumerable<TicketLine> LedBy(string name, [EnumeratorCancellation] CancellationToken ct)
    {
        const int AtOnce = 200;
        for (long? before = null; ; )
        {
            var page = await lines.FindAsync(new(Ended: false, Engineer: name, Before: before, Limit: AtOnce), ct);
            foreach (var line in page)
                yield return line;
            if (page.Count < AtOnce)
                yield break;
            before = page[^1].Number;
        }
    }

    public async Task<PersonHolds> ByAsync(string name, int most, CancellationToken ct)
    {
        var tickets = await lines.FindAsync(new(Ended: false, Engineer: name, Limit: most), ct);
        var inHand = await ledger.HeldAsync(new Holder(HolderKind.Engineer, name), null, most, ct);
        var inVan = await ledger.HeldAsync(new Holder(HolderKind.Van, name), null, most, ct);
        var counted = await supplies.ListAsync(new Holder(HolderKind.Van, name), ct);
        return new(tickets, [.. inHand, .. inVan], [.. counted.SelectMany(s => s.Where.Select(w => $"{s.Name}, {w.Count}"))]);
    }
}
