using System.Net;
using System.Text.Json;
using Nailcrow.Client;
using Nailcrow.GivenTime;

namespace Nailcrow.Service.Tests.Tickets;

/// <summary>What a device says of its own clock beside what it writes, over lines that are slow one way, the other, or both.</summary>
public sealed class SlowLineTests
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    /// <summary>Said to be wrong, it would have what its owner writes move past what others write in the meantime.</summary>
    [Theory]
    [InlineData(0, 0)]
    [InlineData(9, 0)]
    [InlineData(0, 9)]
    [InlineData(60, 0.1)]
    public async Task A_clock_that_can_be_right_is_right_however_long_the_answers_are_on_their_way(double there, double back) =>
        (await SaidBehindAsync(ahead: 0, there, back)).ShouldBe(0);

    [Theory]
    [InlineData(3600, 0, 0, 0.5)]
    [InlineData(-90, 0.2, 0.2, 0.7)]
    [InlineData(3600, 9, 0, 5)]
    [InlineData(-90, 0, 9, 5)]
    public async Task One_that_cannot_is_told_to_half_the_way(double ahead, double there, double back, double within) =>
        ((await SaidBehindAsync(ahead, there, back)).ShouldNotBeNull() / 1000.0).ShouldBe(-ahead, within + 0.01);

    /// <summary>Signs in and writes a note; the same line each way for both.</summary>
    private static async Task<long?> SaidBehindAsync(double ahead, double there, double back)
    {
        var time = new MovedTime();
        using var line = new Line(time, TimeSpan.FromSeconds(ahead), TimeSpan.FromSeconds(there), TimeSpan.FromSeconds(back));
        var client = new NailcrowClient(new HttpClient(line) { BaseAddress = new Uri("http://nailcrow.test/") }, time);
        await client.SignInAsync("ilka", "whatever", Ct);
        await Should.ThrowAsync<ApiProblem>(() => client.WriteAsync(1, new Core.Tickets.NoteWritten("Slow here"), Ct));
        return line.Said is { ValueKind: JsonValueKind.Number } behind ? behind.GetInt64() : null;
    }

    /// <summary>A service behind a line, whose own clock is right where the device's is so far ahead of it.</summary>
    private sealed class Line(MovedTime device, TimeSpan ahead, TimeSpan there, TimeSpan back) : HttpMessageHandler
    {
        public JsonElement? Said { get; private set; }

        protected override async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken ct)
        {
            device.Pass(there);
            var signsIn = request.RequestUri!.AbsolutePath == "/api/sign-in";
            var answer = new HttpResponseMessage(signsIn ? HttpStatusCode.OK : HttpStatusCode.Conflict)
            {
                Content = new StringContent("""{"accessToken":"t","expiresIn":1,"detail":"Not kept: this is a line alone."}"""),
            };
            answer.Content.Headers.ContentType = new("application/json");
            answer.Headers.Date = device.GetUtcNow() - ahead;
            if (
                !signsIn
                && JsonDocument
                    .Parse(await request.Content!.ReadAsStringAsync(ct))
                    .RootElement.TryGetProperty("clockBehindMs", out var behind)
            )
                Said = behind;
            device.Pass(back);
            return answer;
        }
    }
}
