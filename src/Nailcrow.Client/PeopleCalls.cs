using System.Net.Http.Headers;
using System.Net.Http.Json;
using Nailcrow.Client.People;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Client;

/// <summary>Who somebody is.</summary>
public sealed partial class NailcrowClient
{
    public Task<Token> SignInAsync(string name, string password, CancellationToken ct) =>
        PostAsync("api/sign-in", new(name, password), Json.SignInAsk, Json.Token, ct);

    public void UseToken(string token) => http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);

    public Task<PersonView> MeAsync(CancellationToken ct) => GetAsync("api/me", Json.PersonView, ct);

    public Task<PeopleList> PeopleAsync(CancellationToken ct) => GetAsync("api/people", Json.PeopleList, ct);

    public Task<PersonView> AddPersonAsync(PersonAsk person, CancellationToken ct) =>
        PostAsync("api/people", person, Json.PersonAsk, Json.PersonView, ct);

    public async Task<PersonView> PutPersonMailAsync(string name, string? address, CancellationToken ct)
    {
        using var content = JsonContent.Create(new PersonMail(address), Json.PersonMail);
        using var answer = await http.PutAsync($"api/people/{Uri.EscapeDataString(name)}/mail", content, ct);
        return await ReadAsync(answer, Json.PersonView, ct);
    }
}
