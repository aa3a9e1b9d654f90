using System.Net.Http.Headers;
using Nailcrow.Client;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests;

public sealed class LiveTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_listener_hears_each_entry_and_one_that_was_away_misses_nothing()
    {
        var ticket = await service.OpenAsync();
        string resumeAt;
        using (var stream = await ListenAsync(null))
        {
            (await NextAsync(stream)).Name.ShouldBe("still-here");
            await service.WriteAsync("ilka", ticket, new NoteWritten("heard"));
            var heard = await NextAsync(stream);
            heard.Data.ShouldContain($"\"ticket\":{ticket},\"seq\":2");
            resumeAt = heard.Id;
        }
        await service.WriteAsync("ilka", ticket, new NoteWritten("missed"));

        using var again = await ListenAsync(resumeAt);

        (await NextAsync(again)).Name.ShouldBe("still-here");
        (await NextAsync(again)).Data.ShouldContain($"\"ticket\":{ticket},\"seq\":3");
    }

    private async Task<StreamReader> ListenAsync(string? lastEventId)
    {
        var http = service.Service.Http();
        var token = await new NailcrowClient(http, TimeProvider.System).SignInAsync("ilka", RunningService.Password, Ct);
        var ask = new HttpRequestMessage(HttpMethod.Get, "api/live");
        ask.Headers.Authorization = new AuthenticationHeaderValue("Bearer", token.AccessToken);
        if (lastEventId is not null)
            ask.Headers.Add("Last-Event-ID", lastEventId);
        var answer = await http.SendAsync(ask, HttpCompletionOption.ResponseHeadersRead, Ct);
        answer.Content.Headers.ContentType?.MediaType.ShouldBe("text/event-stream");
        return new StreamReader(await answer.Content.ReadAsStreamAsync(Ct));
    }

    /// <summary>One event, as HTML's server-sent events write it: lines of "field: value", then an empty one.</summary>
    private static async Task<(string Name, string Data, string Id)> NextAsync(StreamReader stream)
    {
        var fields = new Dictionary<string, string>();
        while (await stream.ReadLineAsync(Ct) is { } line && (line.Length > 0 || fields.Count == 0))
            if (line.Split(": ", 2) is [var field, var value])
                fields[field] = value;
        return (fields["event"], fields["data"], fields["id"]);
    }
}
