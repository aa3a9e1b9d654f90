using System.Net;
using System.Text;
using System.Text.Json;

namespace Nailcrow.Service.Tests.Host;

/// <summary>Whoever calls a place that is there in a way that it does not take is told so, and not that there is no such place.</summary>
public sealed class UnansweredTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private sealed record Described(string Path, IReadOnlyDictionary<string, JsonElement> Calls);

    [Fact]
    public async Task Every_place_that_is_described_tells_which_methods_it_takes()
    {
        using var http = await service.Service.HttpAsync("ilka");
        foreach (var place in await DescribedAsync(http))
        {
            using var ask = new HttpRequestMessage(HttpMethod.Patch, place.Path);
            using var answer = await http.SendAsync(ask, Ct);

            answer.StatusCode.ShouldBe(HttpStatusCode.MethodNotAllowed, place.Path);
            answer.Content.Headers.Allow.Order().ShouldBe(place.Calls.Keys.Select(m => m.ToUpperInvariant()).Order(), place.Path);
            (await SaidAsync(answer)).ShouldContain("does not take PATCH; accepted: ");
        }
    }

    [Fact]
    public async Task Every_call_with_a_body_tells_what_kind_that_has_to_be()
    {
        using var http = await service.Service.HttpAsync("ilka");
        var told = 0;
        foreach (var place in await DescribedAsync(http))
        foreach (var (method, call) in place.Calls)
            if (call.TryGetProperty("requestBody", out var body))
            {
                using var ask = new HttpRequestMessage(new(method.ToUpperInvariant()), place.Path);
                ask.Content = new StringContent("name=x", Encoding.UTF8, "text/x-nobody-takes");
                using var answer = await http.SendAsync(ask, Ct);

                answer.StatusCode.ShouldBe(HttpStatusCode.UnsupportedMediaType, $"{method} {place.Path}");
                var said = await SaidAsync(answer);
                foreach (var kind in body.GetProperty("content").EnumerateObject())
                    said.ShouldContain(kind.Name, customMessage: $"{method} {place.Path}");
                told++;
            }

        told.ShouldBeGreaterThan(40);
    }

    [Theory]
    [InlineData("api/nothing")]
    [InlineData("api/tickets/not-a-number")]
    [InlineData("api/tickets/1001/entries/and/more")]
    public async Task Where_nothing_is_that_is_told(string path)
    {
        using var http = await service.Service.HttpAsync("ilka");
        using var ask = new HttpRequestMessage(HttpMethod.Patch, path);
        using var answer = await http.SendAsync(ask, Ct);

        answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await SaidAsync(answer)).ShouldBe($"There is no /{path} here; /api/openapi.json lists what there is.");
    }

    [Theory]
    [InlineData("PATCH", "api/tickets/1001")]
    [InlineData("POST", "api/import/drives")]
    public async Task A_stranger_is_asked_to_come_in_first(string method, string path)
    {
        using var http = service.Service.Http();
        using var ask = new HttpRequestMessage(new(method), path)
        {
            Content = new StringContent("x", Encoding.UTF8, "text/x-nobody-takes"),
        };
        using var answer = await http.SendAsync(ask, Ct);

        answer.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await SaidAsync(answer)).ShouldStartWith("Sign in first: ");
    }

    private static async Task<string> SaidAsync(HttpResponseMessage answer) =>
        JsonDocument.Parse(await answer.Content.ReadAsStringAsync(Ct)).RootElement.GetProperty("detail").GetString() ?? "";

    /// <summary>All places of the interface, each with something in place of what varies.</summary>
    private static async Task<List<Described>> DescribedAsync(HttpClient http)
    {
        var api = JsonDocument.Parse(await http.GetStringAsync("api/openapi.json", Ct)).RootElement;
        return
        [
            .. api.GetProperty("paths")
                .EnumerateObject()
                .Select(path => new Described(
                    Filled(path.Name, path.Value.EnumerateObject().First().Value),
                    path.Value.EnumerateObject().ToDictionary(call => call.Name, call => call.Value)
                )),
        ];
    }

    private static string Filled(string path, JsonElement call)
    {
        if (call.TryGetProperty("parameters", out var parameters))
            foreach (var parameter in parameters.EnumerateArray().Where(p => p.GetProperty("in").GetString() == "path"))
                path = path.Replace(
                    $"{{{parameter.GetProperty("name").GetString()}}}",
                    Some(parameter.GetProperty("schema")),
                    StringComparison.Ordinal
                );
        return path;
    }

    private static string Some(JsonElement schema) =>
        schema.TryGetProperty("format", out var format) && format.GetString() == "uuid" ? $"{Guid.CreateVersion7()}"
        : schema.TryGetProperty("format", out format) && format.GetString() is "int64" or "int32" ? "1001"
        : "some";
}
