using System.Net.Http.Headers;
using Nailcrow.Client;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Tickets;

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
            var heard = await EntryAsync(stream);
            heard.Data.ShouldContain($"\"ticket\":{ticket},\"seq\":2");
            resumeAt = heard.Id;
        }
        await service.WriteAsync("ilka", ticket, new NoteWritten("missed"));

        using var again = await ListenAsync(resumeAt);

        (await NextAsync(again)).Name.ShouldBe("still-here");
        (await EntryAsync(again)).Data.ShouldContain($"\"ticket\":{ticket},\"seq\":3");
    }

    [Fact]
    public async Task A_listener_who_cannot_send_the_header_says_in_the_address_where_it_was()
    {
        var ticket = await service.OpenAsync();
        using var stream = await ListenAsync(null);
        var before = (await NextAsync(stream)).Id;
        await service.WriteAsync("ilka", ticket, new NoteWritten("one"));
        await service.WriteAsync("ilka", ticket, new NoteWritten("two"));

        using var again = await ListenAsync(null, $"?after={before}");

        (await EntryAsync(again)).Data.ShouldContain($"\"ticket\":{ticket},\"seq\":2");
        (await EntryAsync(again)).Data.ShouldContain($"\"ticket\":{ticket},\"seq\":3");
    }

    [Fact]
    public async Task Every_listener_hears_every_entry_of_a_storm_once_and_in_order()
    {
        var ticket = await service.OpenAsync();
        var streams = await Task.WhenAll(Enumerable.Range(0, 20).Select(_ => ListenAsync(null)));
        foreach (var stream in streams)
            await NextAsync(stream);

        await Task.WhenAll(Enumerable.Range(0, 100).Select(i => service.WriteAsync("ilka", ticket, new NoteWritten($"{i}"))));

        foreach (var stream in streams)
        {
            var heard = new List<string>();
            for (var i = 0; i < 100; i++)
                heard.Add((await EntryAsync(stream)).Data);
            heard.ShouldBe([.. heard.Distinct()]);
            heard.Select(SeqOf).ShouldBe(Enumerable.Range(2, 100));
            stream.Dispose();
        }
    }

    private static int SeqOf(string data) => System.Text.Json.JsonDocument.Parse(data).RootElement.GetProperty("seq").GetInt32();

    /// <summary>The next entry; that the service is still there is said each second between.</summary>
    private static async Task<(string Name, string Data, string Id)> EntryAsync(StreamReader stream)
    {
        while (true)
            if (await NextAsync(stream) is { Name: not "still-here" } heard)
                return heard;
    }

    private async Task<StreamReader> ListenAsync(string? lastEventId, string query = "")
    {
        var http = service.Service.Http();
        var token = await new NailcrowClient(http, TimeProvider.System).SignInAsync("ilka", RunningService.Password, Ct);
        var ask = new HttpRequestMessage(HttpMethod.Get, $"api/live{query}");
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
