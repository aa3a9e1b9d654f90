using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Nailcrow.Client.People;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.SecondFactor;

/// <summary>
/// Passkeys (W3C Web Authentication), held by the framework. What was asked of a browser travels with it, sealed and good for five
/// minutes, and each answer counts once.
/// </summary>
internal sealed class Passkeys(IDataProtectionProvider protection, AnsweredOnce answered, TimeProvider time)
{
    private static readonly TimeSpan AnswerWithin = TimeSpan.FromMinutes(5);

    private readonly ITimeLimitedDataProtector _seal = protection.CreateProtector("nailcrow.passkeys").ToTimeLimitedDataProtector();

    public async Task<PasskeyAsked> AskToMakeAsync(IPasskeyHandler<Person> handler, Person person, HttpContext http)
    {
        var asked = await handler.MakeCreationOptionsAsync(
            new()
            {
                Id = person.Id,
                Name = person.Name,
                DisplayName = person.FullName,
            },
            http
        );
        return Asked(person.Name, asked.AttestationState, asked.CreationOptionsJson);
    }

    /// <summary>Of nobody in particular: the key says whose it is, and whether a name exists is told to nobody.</summary>
    public async Task<PasskeyAsked> AskToShowAsync(IPasskeyHandler<Person> handler, HttpContext http)
    {
        var asked = await handler.MakeRequestOptionsAsync(null, http);
        return Asked("", asked.AssertionState, asked.RequestOptionsJson);
    }

    /// <returns>Null where it is none that was asked for, or what made it cannot be held to what it says.</returns>
    public async Task<UserPasskeyInfo?> MadeAsync(IPasskeyHandler<Person> handler, PasskeyMade made, string person, HttpContext http)
    {
        if (Open(made.State, person) is not { } state)
            return null;
        var held = await handler.PerformAttestationAsync(
            new()
            {
                HttpContext = http,
                CredentialJson = made.Credential.GetRawText(),
                AttestationState = state,
            }
        );
        return held.Succeeded && await OnceAsync(made.State, http.RequestAborted) ? held.Passkey : null;
    }

    /// <returns>Whose it is; null where it is nobody's, or not what was asked for.</returns>
    public async Task<(Person Person, UserPasskeyInfo Passkey)?> ShownAsync(
        IPasskeyHandler<Person> handler,
        PasskeyShown shown,
        HttpContext http
    )
    {
        if (Open(shown.State, "") is not { } state)
            return null;
        var held = await handler.PerformAssertionAsync(
            new()
            {
                HttpContext = http,
                CredentialJson = shown.Credential.GetRawText(),
                AssertionState = state,
            }
        );
        return held.Succeeded && await OnceAsync(shown.State, http.RequestAborted) ? (held.User, held.Passkey) : null;
    }

    private PasskeyAsked Asked(string person, string? state, string options)
    {
        using var json = JsonDocument.Parse(options);
        return new(_seal.Protect($"{person}\n{state}", AnswerWithin), json.RootElement.Clone());
    }

    private string? Open(string sealedState, string person)
    {
        try
        {
            var open = _seal.Unprotect(sealedState);
            return open.StartsWith($"{person}\n", StringComparison.Ordinal) ? open[(person.Length + 1)..] : null;
        }
        catch (Exception e) when (e is CryptographicException or FormatException)
        {
            return null; // not ours, or too old
        }
    }

    private Task<bool> OnceAsync(string state, CancellationToken ct) =>
        answered.IsFirstAsync(state, time.GetUtcNow(), time.GetUtcNow() + AnswerWithin, ct);
}
