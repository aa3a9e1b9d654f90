using System.Net.Http.Json;
using Nailcrow.Client.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Client;

/// <summary>The library of procedures.</summary>
public sealed partial class NailcrowClient
{
    public Task<ProcedureList> ProceduresAsync(CancellationToken ct) => GetAsync("api/procedures", Json.ProcedureList, ct);

    public Task<ProcedurePage> ProcedureAsync(string id, string? version, CancellationToken ct) =>
        GetAsync(
            $"api/procedures/{Uri.EscapeDataString(id)}{(version is null ? "" : $"?version={Uri.EscapeDataString(version)}")}",
            Json.ProcedurePage,
            ct
        );

    public Task<ProcedureView> PublishAsync(PublishAsk ask, CancellationToken ct) =>
        PostAsync("api/procedures", ask, Json.PublishAsk, Json.ProcedureView, ct);

    public Task WithdrawAsync(string id, string version, string because, CancellationToken ct) =>
        SayOfAsync(id, version, "withdraw", because, ct);

    /// <summary>New runs use it again.</summary>
    public Task BringBackAsync(string id, string version, string because, CancellationToken ct) =>
        SayOfAsync(id, version, "bring-back", because, ct);

    private async Task SayOfAsync(string id, string version, string what, string because, CancellationToken ct)
    {
        using var content = JsonContent.Create(new WithdrawAsk(because), Json.WithdrawAsk);
        using var answer = await http.PostAsync(
            $"api/procedures/{Uri.EscapeDataString(id)}/versions/{Uri.EscapeDataString(version)}/{what}",
            content,
            ct
        );
        await ThrowUnlessOkAsync(answer, ct);
    }

    public Task<VersionDifference> CompareProcedureAsync(string id, string before, string after, CancellationToken ct) =>
        GetAsync(
            $"api/procedures/{Uri.EscapeDataString(id)}/compare?before={Uri.EscapeDataString(before)}&after={Uri.EscapeDataString(after)}",
            Json.VersionDifference,
            ct
        );

    public Task<TimesView> ProcedureTimesAsync(string id, CancellationToken ct) =>
        GetAsync($"api/procedures/{Uri.EscapeDataString(id)}/times", Json.TimesView, ct);
}
