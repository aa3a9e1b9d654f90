using System.Net.Http.Headers;
using System.Net.Http.Json;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Client;

/// <summary>Machines, their models and sites.</summary>
public sealed partial class NailcrowClient
{
    /// <summary>A page of appliances, in order of asset number.</summary>
    /// <param name="find">Any part of an asset number, a chassis' serial, a model, a site or a place in it.</param>
    public Task<AppliancePage> AppliancesAsync(string? after, CancellationToken ct, string? find = null) =>
        GetAsync(
            $"api/appliances?find={Uri.EscapeDataString(find ?? "")}{(after is null ? "" : $"&after={Uri.EscapeDataString(after)}")}",
            Json.AppliancePage,
            ct
        );

    public Task<ApplianceView> ApplianceAsync(string asset, CancellationToken ct) =>
        GetAsync($"api/appliances/{Uri.EscapeDataString(asset)}", Json.ApplianceView, ct);

    public Task<IReadOnlyList<ApplianceModel>> ModelsAsync(CancellationToken ct) =>
        GetAsync("api/models", Json.IReadOnlyListApplianceModel, ct);

    public Task<SiteList> SitesAsync(CancellationToken ct) => GetAsync("api/sites", Json.SiteList, ct);

    /// <summary>A page of customers, by name.</summary>
    /// <param name="find">Any part of a name.</param>
    public Task<CustomerPage> CustomersAsync(string? after, CancellationToken ct, string? find = null) =>
        GetAsync(
            $"api/customers?find={Uri.EscapeDataString(find ?? "")}{(after is null ? "" : $"&after={Uri.EscapeDataString(after)}")}",
            Json.CustomerPage,
            ct
        );

    public Task<CustomerView> CustomerAsync(string name, CancellationToken ct) =>
        GetAsync($"api/customers/one?name={Uri.EscapeDataString(name)}", Json.CustomerView, ct);

    /// <summary>Adds a customer, or changes one.</summary>
    /// <param name="seen">The version that is changed; null to add one.</param>
    public async Task<CustomerView> PutCustomerAsync(Customer customer, string? seen, CancellationToken ct)
    {
        using var put = new HttpRequestMessage(HttpMethod.Put, "api/customers") { Content = JsonContent.Create(customer, Json.Customer) };
        if (seen is not null)
            put.Headers.IfMatch.Add(new($"\"{seen}\""));
        return await ReadAsync(await http.SendAsync(put, ct), Json.CustomerView, ct);
    }

    /// <summary>Adds a machine nobody has heard of, with its site where that is new too.</summary>
    public Task<MachineAdded> AddMachineAsync(MachineAsk machine, CancellationToken ct) =>
        PostAsync("api/appliances", machine, Json.MachineAsk, Json.MachineAdded, ct);

    /// <summary>Puts right what is known of a machine: its own serial, its place, its site.</summary>
    public async Task<ApplianceView> ReplaceMachineAsync(Appliance machine, long seen, CancellationToken ct)
    {
        using var put = new HttpRequestMessage(HttpMethod.Put, $"api/appliances/{Uri.EscapeDataString(machine.Asset)}")
        {
            Content = JsonContent.Create(machine, Json.Appliance),
        };
        put.Headers.IfMatch.Add(new($"\"{seen}\""));
        return await ReadAsync(await http.SendAsync(put, ct), Json.ApplianceView, ct);
    }

    public Task<BaysView> BaysAsync(string asset, CancellationToken ct) =>
        GetAsync($"api/appliances/{Uri.EscapeDataString(asset)}/bays", Json.BaysView, ct);

    /// <summary>Whether a machine can be read, step by step.</summary>
    public Task<Trial> TryMachineAsync(string asset, CancellationToken ct) => PostAsync(Of(asset, "try"), Json.Trial, ct);

    public Task<MachineAccessView> AccessAsync(string asset, CancellationToken ct) =>
        GetAsync(Of(asset, "access"), Json.MachineAccessView, ct);

    /// <summary>A page of the machines whose certificate waits for somebody's yes.</summary>
    public Task<WaitingMachines> WaitingMachinesAsync(string? after, CancellationToken ct) =>
        GetAsync($"api/certificates{(after is null ? "" : $"?after={Uri.EscapeDataString(after)}")}", Json.WaitingMachines, ct);

    /// <summary>Whom to sign in as at a machine from now on.</summary>
    public Task<MachineAccessView> GiveSignInAsync(string asset, MachineSignInAsk ask, CancellationToken ct) =>
        PutAsync(Of(asset, "sign-in"), ask, Json.MachineSignInAsk, Json.MachineAccessView, ct);

    public async Task TakeSignInAwayAsync(string asset, CancellationToken ct)
    {
        using var answer = await http.DeleteAsync(Of(asset, "sign-in"), ct);
        await ThrowUnlessOkAsync(answer, ct);
    }

    /// <summary>Says yes to the certificate a machine showed.</summary>
    /// <param name="sha256">The fingerprint that was looked at, with or without colons.</param>
    public Task<MachineAccessView> TrustAsync(string asset, string sha256, CancellationToken ct) =>
        PutAsync(Of(asset, "certificate"), new(sha256), Json.TrustAsk, Json.MachineAccessView, ct);

    private static string Of(string asset, string what) => $"api/appliances/{Uri.EscapeDataString(asset)}/{what}";

    /// <summary>Sends a CSV file; a dry run changes nothing.</summary>
    public async Task<ImportResult> ImportAsync(string kind, Stream file, bool dryRun, bool all, CancellationToken ct)
    {
        using var content = new StreamContent(file);
        content.Headers.ContentType = new("text/csv");
        using var answer = await http.PostAsync(
            $"api/import/{Uri.EscapeDataString(kind)}?dryRun={(dryRun ? "true" : "false")}&all={(all ? "true" : "false")}",
            content,
            ct
        );
        return await ReadAsync(answer, Json.ImportResult, ct);
    }

    public async Task ExportAsync(string kind, Stream into, CancellationToken ct)
    {
        using var answer = await http.GetAsync($"api/export/{Uri.EscapeDataString(kind)}", HttpCompletionOption.ResponseHeadersRead, ct);
        await ThrowUnlessOkAsync(answer, ct);
        await answer.Content.CopyToAsync(into, ct);
    }

    public Task<Loaded> LoadAsync(ReferenceData data, CancellationToken ct) =>
        PostAsync("api/admin/reference", data, Json.ReferenceData, Json.Loaded, ct);
}
