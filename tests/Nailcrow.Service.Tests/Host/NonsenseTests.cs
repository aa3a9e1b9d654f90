using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using Nailcrow.Client;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Host;

/// <summary>What no client of ours sends: each is refused with a sentence in words of the job, and nothing of it is kept.</summary>
public sealed class NonsenseTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<(HttpStatusCode Status, string Detail)> SendAsync(HttpMethod method, string path, string? body = null)
    {
        using var http = service.Service.Http();
        var token = (await new NailcrowClient(http, TimeProvider.System).SignInAsync("ilka", RunningService.Password, Ct)).AccessToken;
        using var ask = new HttpRequestMessage(method, $"api/{path}");
        ask.Headers.Authorization = new AuthenticationHeaderValue("Bearer", token);
        if (body is not null)
            ask.Content = new StringContent(body, Encoding.UTF8, "application/json");
        using var answer = await http.SendAsync(ask, Ct);
        var text = await answer.Content.ReadAsStringAsync(Ct);
        return (answer.StatusCode, JsonDocument.Parse(text).RootElement.GetProperty("detail").GetString() ?? "");
    }

    [Theory]
    [InlineData("snapshots/seen", "{}", "it lacks 'bays', 'arrays'.")]
    [InlineData("snapshots/seen", """{"bays":null,"arrays":[]}""", "null is not accepted there.")]
    [InlineData("snapshots/seen", """{"bays":[null],"arrays":[]}""", "'bays' has a null in it; leave it out.")]
    [InlineData("entries", """{"body":null}""", "null is not accepted there.")]
    [InlineData("entries", """{"body":{"kind":"note-written","text":null}}""", "null is not accepted there.")]
    [InlineData("entries", """{"body":{"kind":"drives-chosen","serials":[null]}}""", "'serials' has a null in it; leave it out.")]
    [InlineData(
        "entries",
        """{"body":{"kind":"snapshot-taken","snapshot":{"takenAt":"2026-03-01T08:00:00Z","source":"person","bays":[null],"arrays":[]}}}""",
        "'bays' has a null in it; leave it out."
    )]
    public async Task A_null_where_something_should_be_is_told_as_such_and_nothing_is_kept(string door, string body, string sentence)
    {
        var ticket = await service.OpenAsync();
        var before = (await (await service.AsAsync("ilka")).TicketAsync(ticket, Ct)).Head;

        var (status, said) = await SendAsync(HttpMethod.Post, $"tickets/{ticket}/{door}", body);

        status.ShouldBe(HttpStatusCode.BadRequest, said);
        said.ShouldEndWith(sentence);
        said.ShouldNotContain("Nailcrow.");
        (await (await service.AsAsync("ilka")).TicketAsync(ticket, Ct)).Head.ShouldBe(before);
    }

    [Theory]
    [InlineData("POST", "tickets", """{"asset":"FSC-0203","symptom":"Lamp\u0000off"}""", "'symptom' has ")]
    [InlineData("POST", "tickets/1001/entries", """{"body":{"kind":"note-written","text":"a\u0000b"}}""", "text has ")]
    [InlineData("GET", "tickets?find=a%00b", null, "The address has ")]
    [InlineData("GET", "drives?find=%00", null, "The address has ")]
    [InlineData("POST", "tickets", """{"asset":"FSC-0203\u0000","symptom":"Lamp off"}""", "'asset' has ")]
    public async Task A_character_that_ends_texts_is_refused_in_the_same_words_wherever_it_comes_in(
        string method,
        string path,
        string? body,
        string where
    )
    {
        await service.OpenAsync();

        var (status, said) = await SendAsync(new HttpMethod(method), path, body);

        ((int)status).ShouldBeInRange(400, 422, said);
        said.ShouldEndWith($"{where}a character U+0000 in it, which no text has; send it without.");
    }

    [Fact]
    public async Task Nobody_writes_in_a_machines_name_and_stores_pull_no_drives()
    {
        var ticket = await service.OpenAsync();

        var (forged, why) = await SendAsync(
            HttpMethod.Post,
            $"tickets/{ticket}/entries",
            """{"body":{"kind":"snapshot-taken","snapshot":{"takenAt":"2026-03-01T08:00:00Z","source":"redfish","bays":[],"arrays":[]}}}"""
        );
        var (pulled, whoMay) = await service.RefusedAsync("sefa", ticket, new Core.Swaps.Drives.DrivePulled("2", "P8BADD0517"));

        forged.ShouldBe(HttpStatusCode.Forbidden);
        why.ShouldStartWith("What a machine says over redfish is kept by the service that hears it");
        (pulled, whoMay).ShouldBe((403, "sefa may not do this; it takes the role engineer or lead."));
    }

    [Theory, InlineData("tickets?limit=many"), InlineData("tickets/waiting?most=all"), InlineData("tickets?before=<b>")]
    public async Task A_word_where_a_number_is_asked_for_is_told_with_where_it_stood(string path)
    {
        var (status, said) = await SendAsync(HttpMethod.Get, path);

        status.ShouldBe(HttpStatusCode.BadRequest);
        said.ShouldContain(path);
    }

    [Theory, InlineData(0), InlineData(1001)]
    public async Task So_many_tickets_of_each_turn_are_told_as_a_page_can_hold(int most) =>
        (await SendAsync(HttpMethod.Get, $"tickets/waiting?most={most}")).Detail.ShouldBe(
            $"Of each turn 1 to 1000 tickets are told; {most} were asked for."
        );
}
