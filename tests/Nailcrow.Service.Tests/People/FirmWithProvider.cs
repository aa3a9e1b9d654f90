using System.Net;
using System.Text.RegularExpressions;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Provider;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.People;

/// <summary>A service that takes a second factor of stores, and a provider that knows it.</summary>
public sealed class FirmWithProvider : IAsyncLifetime
{
    private RunningProvider? _provider;
    private RunningService? _service;

    public RunningService Service => _service ?? throw new InvalidOperationException("Not started yet.");

    public RunningProvider Provider => _provider ?? throw new InvalidOperationException("Not started yet.");

    public async ValueTask InitializeAsync()
    {
        _provider = await RunningProvider.StartAsync();
        _service = await RunningService.StartPeopledAsync(further: [.. _provider.Settings, "--Nailcrow:SecondFactor:0", "stores"]);
        await _provider.KnowsAsync(_service.Address);
    }

    /// <summary>A browser with cookies of its own.</summary>
    public HttpClient Browser(bool follows = true) =>
        new(new HttpClientHandler { AllowAutoRedirect = follows }) { BaseAddress = Service.Address };

    public async Task<IReadOnlyList<SecurityLine>> LogAsync(string about)
    {
        var admin = await Service.SignInAsync("admin");
        return [.. (await admin.SecurityLogAsync(null, null, null, 200, Ct)).Lines.Where(line => line.About == about)];
    }

    public async ValueTask DisposeAsync()
    {
        await Service.DisposeAsync();
        await Provider.DisposeAsync();
    }

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public static async Task<(int Status, string Sentence)> PageAsync(HttpClient browser, string at = "api/sign-in/elsewhere")
    {
        using var page = await browser.GetAsync(at, Ct);
        return ((int)page.StatusCode, Sentence(await page.Content.ReadAsStringAsync(Ct)));
    }

    public static string Sentence(string page) =>
        WebUtility.HtmlDecode(Regex.Match(page, "<p>(.*?)</p>", RegexOptions.Singleline).Groups[1].Value);

    public static async Task<(int Status, string Sentence)> ProblemAsync(Task call)
    {
        var no = await Should.ThrowAsync<ApiProblem>(() => call);
        return ((int)no.Status, no.Message);
    }
}
