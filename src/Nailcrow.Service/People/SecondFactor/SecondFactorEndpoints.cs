using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.WebUtilities;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.People.SecondFactor;
using Nailcrow.Core.Terms;
using Nailcrow.Documents;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.People.Keys;
using Nailcrow.Service.People.SigningIn;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.SecondFactor;

/// <summary>One's own second factors: looked at, set up and ended, each with the password said once more.</summary>
internal static class SecondFactorEndpoints
{
    internal const string Own = "/api/me/second-factor";

    private const int LongestName = 60;

    // More keys than anybody carries; what is kept for a person is bounded.
    private const int MostPasskeys = 20;

    public static void MapSecondFactor(this RouteGroupBuilder api, RouteGroupBuilder care)
    {
        api.MapGet("/me/second-factor", Show).WithName("ShowSecondFactor");
        var own = api.MapGroup("/me/second-factor").NotByKey();
        own.MapPost("/codes", OfferCodes).WithName("OfferCodes");
        own.MapPut("/codes", TakeCodes).WithName("TakeCodes");
        own.MapPost("/codes/end", EndCodes).WithName("EndCodes");
        own.MapPost("/recovery", MakeRecovery).WithName("MakeRecoveryCodes");
        own.MapPost("/passkeys/ask", AskPasskey).WithName("AskPasskey");
        own.MapPost("/passkeys", AddPasskey).WithName("AddPasskey");
        own.MapPost("/passkeys/{id}/end", EndPasskey).WithName("EndPasskey");
        care.MapPost("/{name}/second-factor/end", TakeAway).WithName("TakeAwaySecondFactor");
    }

    internal static async Task<Ok<SecondFactorView>> Show(
        HttpContext http,
        SecondFactors factors,
        SecondFactorRules rules,
        CancellationToken ct
    ) => TypedResults.Ok(await ViewAsync(http, factors, rules, ct));

    internal static async Task<Results<Ok<CodesOffered>, ProblemHttpResult>> OfferCodes(
        Sent<PasswordSaid> sent,
        HttpContext http,
        OwnPasswords passwords,
        SecondFactors factors,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (await passwords.WhyNotAsync(http.Doer(), ask.Password, ct) is { } no)
            return no;
        var key = RandomNumberGenerator.GetBytes(OneTimeCode.KeyBytes);
        await factors.OfferCodesAsync(http.Doer().Name, key, ct);
        var uri = OneTimeCode.KeyUri(key, "Nailcrow", http.Doer().Name);
        return TypedResults.Ok(new CodesOffered(Base32.Text(key), uri, QrRows.Of(uri)));
    }

    internal static async Task<Results<Ok<SecondFactorSet>, ProblemHttpResult>> TakeCodes(
        Sent<CodeSaid> sent,
        HttpContext http,
        SecondFactors factors,
        SecondFactorRules rules,
        RecoveryCodes recovery,
        Standings standings,
        CancellationToken ct
    ) =>
        await factors.TakeCodesAsync(http.Doer(), http.Doer().Name, sent.Message.Code, ct)
            ? await SetAsync(http, factors, rules, recovery, standings, ct)
            : Refusals.Unusable(
                "That is not what the device should show now. Look whether its clock is right, and type the six digits before they change; "
                    + "a key that was shown more than 15 minutes ago is asked for anew."
            );

    internal static async Task<Results<Ok<SecondFactorView>, ProblemHttpResult>> EndCodes(
        Sent<PasswordSaid> sent,
        HttpContext http,
        OwnPasswords passwords,
        SecondFactors factors,
        SecondFactorRules rules,
        Standings standings,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (await passwords.WhyNotAsync(http.Doer(), ask.Password, ct) is { } no)
            return no;
        var ended = await factors.EndCodesAsync(http.Doer(), ct);
        standings.Changed();
        return ended ? TypedResults.Ok(await ViewAsync(http, factors, rules, ct)) : Refusals.Refused("You have no one-time codes.");
    }

    internal static async Task<Results<Ok<SecondFactorSet>, ProblemHttpResult>> MakeRecovery(
        Sent<PasswordSaid> sent,
        HttpContext http,
        OwnPasswords passwords,
        SecondFactors factors,
        SecondFactorRules rules,
        RecoveryCodes recovery,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (await passwords.WhyNotAsync(http.Doer(), ask.Password, ct) is { } no)
            return no;
        if (!(await factors.OfAsync(http.Doer().Name, ct)).Any)
            return Refusals.Refused("Recovery codes stand in for a second factor, and you have none; set up one-time codes or a passkey.");
        return await recovery.MakeAsync(http.Doer(), ct) is { } codes
            ? TypedResults.Ok(new SecondFactorSet(await ViewAsync(http, factors, rules, ct), codes))
            : Busy();
    }

    internal static async Task<Results<Ok<PasskeyAsked>, ProblemHttpResult>> AskPasskey(
        Sent<PasswordSaid> sent,
        HttpContext http,
        OwnPasswords passwords,
        PeopleBook people,
        SecondFactors factors,
        Passkeys passkeys,
        IPasskeyHandler<Person> handler,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (await passwords.WhyNotAsync(http.Doer(), ask.Password, ct) is { } no)
            return no;
        if ((await factors.OfAsync(http.Doer().Name, ct)).Passkeys.Count >= MostPasskeys)
            return Refusals.Refused($"You have {MostPasskeys} passkeys, which is as many as are kept; end one that you have no more.");
        return await people.FindAsync(http.Doer().Name, ct) is { } person
            ? TypedResults.Ok(await passkeys.AskToMakeAsync(handler, person, http))
            : Refusals.NotFound("Nobody is signed in with a name that is known here.");
    }

    internal static async Task<Results<Ok<SecondFactorSet>, ProblemHttpResult>> AddPasskey(
        Sent<PasskeyMade> sent,
        HttpContext http,
        SecondFactors factors,
        SecondFactorRules rules,
        Passkeys passkeys,
        RecoveryCodes recovery,
        Standings standings,
        IPasskeyHandler<Person> handler,
        CancellationToken ct
    )
    {
        var made = sent.Message;
        var name = made.Name.Trim();
        if (name.Length is 0 or > LongestName || Visible.Text(name) != name)
            return Refusals.Unusable(
                $"A passkey has a name of 1 to {LongestName} characters that can be seen, such as 'blue key on the ring'."
            );
        if (await passkeys.MadeAsync(handler, made, http.Doer().Name, http) is not { } passkey)
            return Refusals.Unusable("That is no passkey that was asked for here within five minutes; nothing was changed. Begin anew.");
        passkey.Name = name;
        await factors.AddPasskeyAsync(http.Doer(), passkey, ct);
        return await SetAsync(http, factors, rules, recovery, standings, ct);
    }

    internal static async Task<Results<Ok<SecondFactorView>, ProblemHttpResult>> EndPasskey(
        string id,
        Sent<PasswordSaid> sent,
        HttpContext http,
        OwnPasswords passwords,
        SecondFactors factors,
        SecondFactorRules rules,
        Standings standings,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (await passwords.WhyNotAsync(http.Doer(), ask.Password, ct) is { } no)
            return no;
        var ended = IdOf(id) is { } bytes && await factors.EndPasskeyAsync(http.Doer(), bytes, ct);
        standings.Changed();
        return ended ? TypedResults.Ok(await ViewAsync(http, factors, rules, ct)) : Refusals.NotFound("You have no passkey of that id.");
    }

    /// <summary>For somebody who has lost theirs. Their password alone lets them in then, or to set up another one where their roles take it.</summary>
    internal static async Task<Results<Ok<PersonView>, ProblemHttpResult>> TakeAway(
        string name,
        HttpContext http,
        PeopleBook people,
        SecondFactors factors,
        Standings standings,
        CancellationToken ct
    )
    {
        if (await people.FindAsync(name, ct) is not { } person)
            return PeopleEndpoints.Nobody(name);
        if (name == http.Doer().Name)
            return Refusals.Refused(
                "Your own is ended with your password: in the console under your name, or with 'nailcrow second-factor end-codes'."
            );
        var taken = await factors.TakeAwayAsync(http.Doer(), name, ct);
        standings.Changed();
        return taken
            ? TypedResults.Ok(PersonViews.Of(person) with { HasSecondFactor = false })
            : Refusals.Refused($"{name} has no second factor.");
    }

    private static async Task<Results<Ok<SecondFactorSet>, ProblemHttpResult>> SetAsync(
        HttpContext http,
        SecondFactors factors,
        SecondFactorRules rules,
        RecoveryCodes recovery,
        Standings standings,
        CancellationToken ct
    )
    {
        standings.Changed();
        IReadOnlyList<string>? codes = null;
        if ((await factors.OfAsync(http.Doer().Name, ct)).RecoveryLeft == 0)
            codes = await recovery.MakeAsync(http.Doer(), ct); // where too many wait there are none, and the page says so
        return TypedResults.Ok(new SecondFactorSet(await ViewAsync(http, factors, rules, ct), codes));
    }

    private static async Task<SecondFactorView> ViewAsync(
        HttpContext http,
        SecondFactors factors,
        SecondFactorRules rules,
        CancellationToken ct
    )
    {
        var have = await factors.OfAsync(http.Doer().Name, ct);
        return new(
            have.CodesSince,
            [.. have.Passkeys.Select(k => new PasskeyView(WebEncoders.Base64UrlEncode(k.Id), k.Name, k.Since))],
            have.RecoveryLeft,
            rules.Takes(http.User.ToActor().Roles)
        );
    }

    private static byte[]? IdOf(string id)
    {
        try
        {
            return WebEncoders.Base64UrlDecode(id);
        }
        catch (FormatException)
        {
            return null;
        }
    }

    private static ProblemHttpResult Busy() =>
        TypedResults.Problem("Very many are signing in at this moment; try again.", statusCode: 503, title: "Busy");
}
