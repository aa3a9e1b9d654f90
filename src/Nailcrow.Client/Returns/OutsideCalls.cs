using System.Net.Http.Json;
using Nailcrow.Client.Returns;

namespace Nailcrow.Client;

/// <summary>Carriers and makers: who can be asked, and what is still to be said to them.</summary>
public sealed partial class NailcrowClient
{
    public Task<PartnerList> PartnersAsync(CancellationToken ct) => GetAsync("api/partners", Json.PartnerList, ct);

    public async Task<PartnerPut> PutPartnerAsync(string name, PartnerAsk ask, CancellationToken ct)
    {
        using var content = JsonContent.Create(ask, Json.PartnerAsk);
        using var answer = await http.PutAsync($"api/partners/{Uri.EscapeDataString(name)}", content, ct);
        return await ReadAsync(answer, Json.PartnerPut, ct);
    }

    public async Task RemovePartnerAsync(string name, CancellationToken ct)
    {
        using var answer = await http.DeleteAsync($"api/partners/{Uri.EscapeDataString(name)}", ct);
        await ThrowUnlessOkAsync(answer, ct);
    }

    /// <param name="state">Null for what waits or was given up.</param>
    /// <param name="after">What the page before said to ask on with.</param>
    public Task<OutboxPage> OutboxAsync(string? state, string? after, CancellationToken ct) =>
        GetAsync(
            "api/outbox"
                + $"{(state is null ? "?" : $"?state={Uri.EscapeDataString(state)}&")}{(after is null ? "" : $"after={Uri.EscapeDataString(after)}")}",
            Json.OutboxPage,
            ct
        );

    /// <param name="find">Part of a serial or a model's name; null for all.</param>
    /// <param name="from">Only those that end then or later.</param>
    /// <param name="after">What the page before said to ask on with.</param>
    public Task<WarrantyPage> WarrantiesAsync(string? find, DateOnly? from, string? after, CancellationToken ct) =>
        GetAsync(
            $"api/warranties?find={Uri.EscapeDataString(find ?? "")}"
                + (from is { } day ? $"&from={day:yyyy-MM-dd}" : "")
                + (after is null ? "" : $"&after={Uri.EscapeDataString(after)}"),
            Json.WarrantyPage,
            ct
        );

    public Task<ErrandView> SendAgainAsync(Guid id, CancellationToken ct) => PostAsync($"api/outbox/{id}/again", Json.ErrandView, ct);
}
