using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Returns;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Wire;
using Nailcrow.Service.People;
using Nailcrow.Store.Returns.Outside;

namespace Nailcrow.Service.Returns.Outside;

/// <summary>Whom the service can ask outside, what it still has to say to them, and what carriers tell by themselves.</summary>
internal static class OutsideEndpoints
{
    private const int OnAPage = 100;

    private static readonly TimeSpan Counted = TimeSpan.FromDays(30);
    private const int MostOfAName = 60;
    private const int FewestOfASecret = 16;
    private const int MostOfASecret = 200;

    public static void MapOutside(this WebApplication app)
    {
        var partners = app.MapGroup("/api/partners").WithTags("Returns");
        partners.MapGet("/", List).WithName("ListPartners");
        partners.MapPut("/{name}", Put).WithName("PutPartner").Takes(Permission.KeepHouse);
        partners.MapDelete("/{name}", Remove).WithName("RemovePartner").Takes(Permission.KeepHouse);
        partners.MapPost("/{name}/events", Tell).WithName("TellParcels").AllowAnonymous();
        var outbox = app.MapGroup("/api/outbox").WithTags("Returns");
        outbox.MapGet("/", Waiting).WithName("ListOutbox");
        outbox.MapPost("/{id:guid}/again", Again).WithName("SendAgain").Takes(Permission.SendAgain);
    }

    internal static async Task<Ok<PartnerList>> List(Partners partners, OurAddress us, CancellationToken ct) =>
        TypedResults.Ok(new PartnerList([.. (await partners.AllAsync(ct)).Select(p => View(p, us))]));

    /// <summary>Adds a carrier or maker, or changes where it answers.</summary>
    internal static async Task<Results<Ok<PartnerPut>, ProblemHttpResult>> Put(
        string name,
        Sent<PartnerAsk> sent,
        Partners partners,
        OutboxRound round,
        OurAddress us,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (Problem(name, ask) is { } problem)
            return Refusals.Unusable(problem);
        var partner = new Partner(name.Trim(), ask.Kind, ask.Address.Trim());
        var others = await partners.AllAsync(ct);
        if (
            others.FirstOrDefault(p => p.Name.Equals(partner.Name, StringComparison.OrdinalIgnoreCase)) is { } known
            && known.Name != partner.Name
        )
            return Refusals.Refused($"There is {known.Name} already; write its name as it is.");
        var secret = ask.NewSecret == true ? SignedEvents.NewSecret() : ask.Secret;
        var made = ask.NewSecret == true ? secret : null;
        if (!await partners.PutAsync(partner, secret, ct))
        {
            if (partner.Kind == PartnerKind.Mail && MailServer.Parse(partner.Address) is Parsed<MailServer>.Ok({ User: { } user }))
                return Refusals.Unusable($"{user} signs in there; say the password with --secret.");
            var first = SignedEvents.NewSecret();
            await partners.PutAsync(partner, first, ct);
            made = partner.Kind == PartnerKind.Mail ? null : first; // nobody signs in there, or the password is said anew
        }
        round.Wake();
        return TypedResults.Ok(new PartnerPut(View(partner, us), made));
    }

    internal static async Task<Results<NoContent, ProblemHttpResult>> Remove(string name, Partners partners, CancellationToken ct) =>
        await partners.RemoveAsync(name.Trim(), ct)
            ? TypedResults.NoContent()
            : Refusals.NotFound($"No partner is called '{Visible.Text(name)}'.");

    /// <summary>What has still to be said, and what was; what could not be said is asked for with <c>state=given-up</c>.</summary>
    /// <param name="state">waiting, given-up, done or not-wanted; default the first two.</param>
    /// <param name="after">What the page before said to ask on with.</param>
    internal static async Task<Results<Ok<OutboxPage>, ProblemHttpResult>> Waiting(
        Outbox outbox,
        TimeProvider time,
        CancellationToken ct,
        string? state = null,
        string? after = null
    )
    {
        IReadOnlyCollection<ErrandState> states = [ErrandState.Waiting, ErrandState.GivenUp];
        if (state is not null)
        {
            if (!Words.Parse<ErrandState>(state, "state").Is(out var one, out var reason))
                return Refusals.Unusable(reason);
            states = [one];
        }
        (DateTimeOffset, Guid)? before = null;
        if (after is not null)
        {
            if (
                after.Split(' ') is not [var at, var last]
                || !DateTimeOffset.TryParse(at, CultureInfo.InvariantCulture, DateTimeStyles.RoundtripKind, out var when)
                || !Guid.TryParse(last, out var id)
            )
                return Refusals.Unusable("'after' is what the page before said to ask on with.");
            before = (when, id);
        }
        var found = await outbox.ListAsync(states, before, OnAPage + 1, ct);
        var page = found.Take(OnAPage).ToList();
        return TypedResults.Ok(
            new OutboxPage(
                [.. page.Select(View)],
                found.Count > OnAPage ? $"{page[^1].WrittenAt.UtcDateTime:O} {page[^1].Errand.Id}" : null,
                (await outbox.CountsAsync(time.GetUtcNow() - Counted, ct)).ToDictionary(c => Words.Of(c.Key), c => c.Value)
            )
        );
    }

    /// <summary>Tries it now, whatever its pause; one that was given up waits again.</summary>
    internal static async Task<Results<Ok<ErrandView>, ProblemHttpResult>> Again(
        Guid id,
        Outbox outbox,
        OutboxRound round,
        TimeProvider time,
        CancellationToken ct
    )
    {
        if (await outbox.AgainAsync(id, time.GetUtcNow(), ct) is not { } errand)
            return Refusals.NotFound($"The outbox has no {id}.");
        if (errand.State is not ErrandState.Waiting)
            return Refusals.Refused($"That is {Words.Of(errand.State).Replace('-', ' ')}; only what waits or was given up is sent again.");
        round.Wake();
        return TypedResults.Ok(View(errand));
    }

    /// <summary>What a carrier tells of its parcels, signed with what both know. What was told before is taken as that.</summary>
    internal static async Task<Results<NoContent, ProblemHttpResult>> Tell(
        string name,
        HttpContext http,
        Partners partners,
        ParcelNews parcels,
        TimeProvider time,
        CancellationToken ct
    )
    {
        if (await EventBody.ReadAsync(http, ct) is not { } body)
            return EventBody.TooMuch();
        var headers = http.Request.Headers;
        var carrier = await partners.FindAsync(name, PartnerKind.Carrier, ct);
        // A carrier that is not known is answered like one whose signature is wrong: which there are is nobody's business.
        var secret = (carrier is null ? null : await partners.SecretAsync(carrier.Name, ct)) ?? SignedEvents.NewSecret();
        var (id, stamp, signature) = (headers["webhook-id"], headers["webhook-timestamp"], headers["webhook-signature"]);
        if (SignedEvents.Problem(id, stamp, signature, body, secret, time.GetUtcNow()) is { } problem || carrier is null)
            return TypedResults.Problem("It is not signed as this carrier signs.", statusCode: 401, title: "Not signed as it should be");
        ParcelEvents? said;
        try
        {
            said = JsonSerializer.Deserialize(body, OutsideJson.Default.ParcelEvents);
        }
        catch (JsonException e)
        {
            return Refusals.Unusable(UnreadableJson.Sentence(e));
        }
        if (said is null || said.Events.Count > Parcel.MostTold)
            return Refusals.Unusable($"1 to {Parcel.MostTold} events are taken at once.");
        List<string> not = [];
        foreach (var happened in said.Events)
            if (await parcels.TakeAsync(carrier.Name, happened, ct) is { } why)
                not.Add(why);
        return not.Count == 0 ? TypedResults.NoContent() : Refusals.Unusable(string.Join(" ", not.Take(5)));
    }

    private static string? Problem(string name, PartnerAsk ask) =>
        name.Trim() is not { Length: > 0 and <= MostOfAName } || name.Any(c => char.IsControl(c) || c is '/' or '\\' or '%')
            ? $"A partner's name has 1 to {MostOfAName} characters, none of them a slash or a percent sign."
        : ask.Kind == PartnerKind.Mail ? MailProblem(ask)
        : !Uri.TryCreate(ask.Address.Trim(), UriKind.Absolute, out var address)
        || address.Scheme is not ("http" or "https")
        || address.UserInfo.Length > 0
        || address.Query.Length > 0
            ? "The address is where they answer, as https://carrier.example/api, without a name, a password or a question."
        : ask.Secret is { } secret && secret.Length is < FewestOfASecret or > MostOfASecret
            ? $"What both sign with has {FewestOfASecret} to {MostOfASecret} characters; leave it out to have one made."
        : null;

    private static string? MailProblem(PartnerAsk ask) =>
        MailServer.Parse(ask.Address) is Parsed<MailServer>.Refused no ? no.Reason
        : ask.NewSecret == true ? "A mail server's password is not made here; say the one it knows with --secret."
        : ask.Secret is { Length: > MostOfASecret } ? $"A password has at most {MostOfASecret} characters."
        : null;

    private static PartnerView View(Partner partner, OurAddress us) =>
        new(
            partner.Name,
            partner.Kind,
            partner.Address,
            partner.Kind == PartnerKind.Carrier ? us.Of($"api/partners/{Uri.EscapeDataString(partner.Name)}/events").AbsoluteUri : null
        );

    private static ErrandView View(ErrandNow now) =>
        new(
            now.Errand.Id,
            now.Errand.Told(),
            now.Errand.To,
            now.Ticket,
            now.WrittenAt,
            Words.Of(now.State),
            now.State == ErrandState.Waiting ? now.DueAt : null,
            now.Tries,
            now.Says
        );
}
