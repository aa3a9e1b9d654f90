using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;

namespace Nailcrow.Client;

/// <summary>Who somebody is, and who may come in.</summary>
public sealed partial class NailcrowClient
{
    /// <param name="code">The six digits their device shows, or a recovery code, where they have a second factor.</param>
    /// <exception cref="ApiProblem">With <see cref="ProblemTypes.SecondFactor"/> where one is asked for.</exception>
    public Task<Token> SignInAsync(string name, string password, CancellationToken ct, string? code = null) =>
        PostAsync("api/sign-in", new(name, password, code), Json.SignInAsk, Json.Token, ct);

    public Task<SecondFactorView> SecondFactorAsync(CancellationToken ct) => GetAsync(OwnFactor, Json.SecondFactorView, ct);

    public Task<CodesOffered> OfferCodesAsync(string password, CancellationToken ct) =>
        PostAsync($"{OwnFactor}/codes", new(password), Json.PasswordSaid, Json.CodesOffered, ct);

    public Task<SecondFactorSet> TakeCodesAsync(string code, CancellationToken ct) =>
        PutAsync($"{OwnFactor}/codes", new(code), Json.CodeSaid, Json.SecondFactorSet, ct);

    public Task<SecondFactorView> EndCodesAsync(string password, CancellationToken ct) =>
        PostAsync($"{OwnFactor}/codes/end", new(password), Json.PasswordSaid, Json.SecondFactorView, ct);

    public Task<SecondFactorSet> MakeRecoveryCodesAsync(string password, CancellationToken ct) =>
        PostAsync($"{OwnFactor}/recovery", new(password), Json.PasswordSaid, Json.SecondFactorSet, ct);

    public Task<SecondFactorView> EndPasskeyAsync(string id, string password, CancellationToken ct) =>
        PostAsync($"{OwnFactor}/passkeys/{Uri.EscapeDataString(id)}/end", new(password), Json.PasswordSaid, Json.SecondFactorView, ct);

    public Task<PersonView> TakeAwaySecondFactorAsync(string name, CancellationToken ct) =>
        PostAsync($"{Of(name)}/second-factor/end", Json.PersonView, ct);

    /// <summary>What is offered at the door beside name and password; nobody has to be signed in.</summary>
    public Task<SignInWays> SignInWaysAsync(CancellationToken ct) => GetAsync("api/sign-in", Json.SignInWays, ct);

    public Task<DeviceAsked> AskDeviceAsync(CancellationToken ct) => PostAsync("api/sign-in/elsewhere/device", Json.DeviceAsked, ct);

    /// <returns>A token once somebody has said yes in a browser; until then how long to wait before asking again.</returns>
    public async Task<(Token? Token, TimeSpan Wait)> ShowDeviceAsync(string handle, CancellationToken ct)
    {
        using var content = JsonContent.Create(new DeviceShown(handle), Json.DeviceShown);
        using var answer = await TimedAsync(() => http.PostAsync("api/sign-in/elsewhere/device/shown", content, ct));
        return answer.StatusCode == HttpStatusCode.Accepted
            ? (null, TimeSpan.FromSeconds((await ReadAsync(answer, Json.DeviceWaits, ct)).AgainAfterSeconds))
            : (await ReadAsync(answer, Json.Token, ct), TimeSpan.Zero);
    }

    public Task<ElsewhereJoining> JoinElsewhereAsync(string password, CancellationToken ct) =>
        PostAsync("api/me/elsewhere", new(password), Json.PasswordSaid, Json.ElsewhereJoining, ct);

    public async Task PartElsewhereAsync(string password, CancellationToken ct)
    {
        using var content = JsonContent.Create(new PasswordSaid(password), Json.PasswordSaid);
        using var answer = await http.PostAsync("api/me/elsewhere/end", content, ct);
        await ThrowUnlessOkAsync(answer, ct);
    }

    public async Task PartElsewhereOfAsync(string name, CancellationToken ct)
    {
        using var answer = await http.PostAsync($"{Of(name)}/elsewhere/end", null, ct);
        await ThrowUnlessOkAsync(answer, ct);
    }

    private const string OwnFactor = "api/me/second-factor";

    /// <summary>What it signs its calls with; null where nobody is signed in with it.</summary>
    public string? Token => http.DefaultRequestHeaders.Authorization?.Parameter;

    public void UseToken(string token) => http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);

    public async Task SignOutAsync(CancellationToken ct)
    {
        using var answer = await http.PostAsync("api/sign-out", null, ct);
        await ThrowUnlessOkAsync(answer, ct);
    }

    public Task<PersonView> MeAsync(CancellationToken ct) => GetAsync("api/me", Json.PersonView, ct);

    public Task<PersonView> ChangePasswordAsync(string now, string next, CancellationToken ct) =>
        PutAsync("api/me/password", new(now, next), Json.OwnPassword, Json.PersonView, ct);

    public Task<PeopleList> PeopleAsync(CancellationToken ct) => GetAsync("api/people", Json.PeopleList, ct);

    public Task<PersonLetIn> AddPersonAsync(PersonAsk person, CancellationToken ct) =>
        PostAsync("api/people", person, Json.PersonAsk, Json.PersonLetIn, ct);

    public Task<PersonView> PutPersonMailAsync(string name, string? address, CancellationToken ct) =>
        PutAsync($"{Of(name)}/mail", new(address), Json.PersonMail, Json.PersonView, ct);

    public Task<PersonView> RenamePersonAsync(string name, string fullName, CancellationToken ct) =>
        PutAsync($"{Of(name)}/full-name", new(fullName), Json.PersonName, Json.PersonView, ct);

    public Task<PersonView> PutRolesAsync(string name, IReadOnlyList<Role> roles, CancellationToken ct) =>
        PutAsync($"{Of(name)}/roles", new(roles), Json.PersonRoles, Json.PersonView, ct);

    public Task<PersonLetIn> GivePasswordAsync(string name, string? password, CancellationToken ct) =>
        PutAsync($"{Of(name)}/password", new(password), Json.PasswordGiven, Json.PersonLetIn, ct);

    public Task<PersonView> DisablePersonAsync(string name, string because, CancellationToken ct) =>
        PostAsync($"{Of(name)}/disable", new(because), Json.PersonOut, Json.PersonView, ct);

    public Task<PersonView> EnablePersonAsync(string name, CancellationToken ct) => PostAsync($"{Of(name)}/enable", Json.PersonView, ct);

    public Task<PersonHolds> HoldsAsync(string name, CancellationToken ct) => GetAsync($"{Of(name)}/holds", Json.PersonHolds, ct);

    public Task<HandedOverAll> HandOverAllAsync(string name, string to, string? note, CancellationToken ct) =>
        PostAsync($"{Of(name)}/hand-over", new(to, note), Json.HandOverAsk, Json.HandedOverAll, ct);

    public Task<PersonView> PersonLeavesAsync(string name, string because, CancellationToken ct) =>
        PostAsync($"{Of(name)}/leave", new(because), Json.PersonOut, Json.PersonView, ct);

    public Task<ComingsIn> ComingsInAsync(string name, CancellationToken ct) => GetAsync($"{Of(name)}/comings-in", Json.ComingsIn, ct);

    public async Task EndSessionAsync(string name, Guid id, CancellationToken ct)
    {
        using var answer = await http.DeleteAsync($"{Of(name)}/sessions/{id}", ct);
        await ThrowUnlessOkAsync(answer, ct);
    }

    public Task<ScriptKeyMade> MakeKeyAsync(string name, ScriptKeyAsk key, CancellationToken ct) =>
        PostAsync($"{Of(name)}/keys", key, Json.ScriptKeyAsk, Json.ScriptKeyMade, ct);

    public async Task EndKeyAsync(string name, Guid id, CancellationToken ct)
    {
        using var answer = await http.DeleteAsync($"{Of(name)}/keys/{id}", ct);
        await ThrowUnlessOkAsync(answer, ct);
    }

    public Task<SecurityPage> SecurityLogAsync(string? by, SecurityEvent? what, long? before, int limit, CancellationToken ct) =>
        GetAsync(
            $"api/security-log?limit={limit}"
                + (by is null ? "" : $"&by={Uri.EscapeDataString(by)}")
                + (what is { } kind ? $"&what={Words.Of(kind)}" : "")
                + (before is { } at ? $"&before={at}" : ""),
            Json.SecurityPage,
            ct
        );

    private static string Of(string name) => $"api/people/{Uri.EscapeDataString(name)}";
}
