using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.Keys;

/// <summary>Where somebody is signed in, and the keys that act in their name: their own, or anybody's for who looks after people.</summary>
internal static class ComingInEndpoints
{
    private const int LongestName = 60;
    private const int MostDays = 366;
    private const int MostChanges = 10;

    public static void MapComingsIn(this RouteGroupBuilder api)
    {
        api.MapGet("/people/{name}/comings-in", List).WithName("ListComingsIn");
        api.MapDelete("/people/{name}/sessions/{id:guid}", EndSession).WithName("EndSession").NotByKey();
        api.MapPost("/people/{name}/keys", Make).WithName("MakeKey").NotByKey();
        api.MapDelete("/people/{name}/keys/{id:guid}", EndKey).WithName("EndKey").NotByKey();
    }

    internal static async Task<Results<Ok<ComingsIn>, ProblemHttpResult>> List(
        string name,
        HttpContext http,
        PeopleBook people,
        Sessions sessions,
        ScriptKeys keys,
        Standings standings,
        SecurityLog log,
        CancellationToken ct
    )
    {
        if (await WhyNotAsync(name, http.User, people, ct) is { } no)
            return no;
        var changes = (await log.NewsOfAsync(name, MostChanges, ct)).Select(line => new SignInChange(
            line.At,
            SignInNews.Told(line) ?? "", // all of them are news
            line.Address
        ));
        var views = (await sessions.OfAsync(name, ct)).Select(s => new SessionView(
            s.Id,
            s.Since,
            standings.SeenAt(s.Id) ?? s.LastSeen,
            s.Device,
            s.Address,
            http.Stand()?.Id == s.Id
        ));
        return TypedResults.Ok(
            new ComingsIn([.. views], [.. (await keys.OfAsync(name, ct)).Select(k => View(k, standings))], [.. changes])
        );
    }

    internal static async Task<Results<NoContent, ProblemHttpResult>> EndSession(
        string name,
        Guid id,
        HttpContext http,
        PeopleBook people,
        Sessions sessions,
        Standings standings,
        CancellationToken ct
    )
    {
        if (await WhyNotAsync(name, http.User, people, ct) is { } no)
            return no;
        var ended = await sessions.EndAsync(http.Doer(), name, id, ct);
        standings.Changed();
        return ended ? TypedResults.NoContent() : Refusals.NotFound($"{name} has no sign-in {id} that is still good.");
    }

    internal static async Task<Results<Ok<ScriptKeyMade>, ProblemHttpResult>> Make(
        string name,
        Sent<ScriptKeyAsk> sent,
        HttpContext http,
        ScriptKeys keys,
        TimeProvider time,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        var actor = http.User.ToActor();
        if (actor.Name != name)
            return Refusals.NotAllowed($"A key acts in the name of whoever makes it; {actor.Name} makes none for {Visible.Text(name)}.");
        var now = time.GetUtcNow();
        if (Problem(ask, actor, DateOnly.FromDateTime(now.UtcDateTime)) is { } problem)
            return Refusals.Unusable(problem);
        var (kept, shown) = KeyText.New(now);
        var key = new KeptKey(
            kept.Id,
            ask.Name.Trim(),
            [.. ask.Roles.Distinct()],
            ask.ReadOnly,
            now,
            new DateTimeOffset(ask.Until.AddDays(1).ToDateTime(TimeOnly.MinValue), TimeSpan.Zero),
            null
        );
        return (await keys.MakeAsync(http.Doer(), key, kept.Hash, ct)).Is(out var made, out var reason)
            ? TypedResults.Ok(new ScriptKeyMade(View(made, null), shown))
            : Refusals.Refused(reason);
    }

    internal static async Task<Results<NoContent, ProblemHttpResult>> EndKey(
        string name,
        Guid id,
        HttpContext http,
        PeopleBook people,
        ScriptKeys keys,
        Standings standings,
        CancellationToken ct
    )
    {
        if (await WhyNotAsync(name, http.User, people, ct) is { } no)
            return no;
        var ended = await keys.EndAsync(http.Doer(), name, id, ct);
        standings.Changed();
        return ended ? TypedResults.NoContent() : Refusals.NotFound($"{name} has no key {id} that is still good.");
    }

    private static string? Problem(ScriptKeyAsk ask, Actor actor, DateOnly today)
    {
        var name = ask.Name.Trim();
        if (name.Length is 0 or > LongestName || Visible.Text(name) != name)
            return $"A key has a name of 1 to {LongestName} characters that can be seen, such as 'night report'.";
        if (ask.Until < today || ask.Until > today.AddDays(MostDays))
            return $"A key is good until {ask.Until:yyyy-MM-dd}, which is not from {today:yyyy-MM-dd} to {today.AddDays(MostDays):yyyy-MM-dd}.";
        if (ask.Roles.Count == 0)
            return $"A key has at least one of your roles: {string.Join(", ", actor.Roles.Select(Words.Of))}.";
        return ask.Roles.Except(actor.Roles).Select(r => (Role?)r).FirstOrDefault() is { } not
            ? $"You are no {Words.Of(not)}, and no key of yours is; your roles: {string.Join(", ", actor.Roles.Select(Words.Of))}."
            : null;
    }

    private static async Task<ProblemHttpResult?> WhyNotAsync(string name, ClaimsPrincipal person, PeopleBook people, CancellationToken ct)
    {
        var actor = person.ToActor();
        if (actor.Name == name)
            return null;
        if (!actor.MayActAs(Permissions.Of(Permission.LookAfterPeople)))
            return Refusals.NotAllowed($"{actor.Name} sees and ends their own; those of others take the role admin.");
        return await people.FindAsync(name, ct) is null ? Refusals.NotFound($"Nobody here is called '{Visible.Text(name)}'.") : null;
    }

    private static ScriptKeyView View(KeptKey key, Standings? standings) =>
        new(
            key.Id,
            key.Name,
            key.Roles,
            key.ReadOnly,
            key.Since,
            DateOnly.FromDateTime(key.Until.UtcDateTime.AddDays(-1)),
            standings?.SeenAt(key.Id) ?? key.LastUsed
        );
}
