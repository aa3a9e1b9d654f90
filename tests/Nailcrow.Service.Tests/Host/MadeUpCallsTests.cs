using System.Net.Http.Headers;
using System.Text.Json;
using Nailcrow.Core.People;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Host;

/// <summary>Whatever is sent is answered with a sentence, by every door of the interface: none of it is a mistake of ours.</summary>
public sealed class MadeUpCallsTests
{
    private const int OfEach = 25;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Whatever_is_sent_to_whatever_door_is_answered_and_the_record_holds()
    {
        await using var service = await RunningService.StartPeopledAsync(alone: true);
        await service.LetInAsync("everybody", Enum.GetValues<Role>());
        var ilka = await service.SignInAsync("ilka");
        await ilka.ReportAsync(new("FSC-0203", "Amber lamp", Bay: "5"), Ct);
        using var http = service.Http();
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", (await service.SignInAsync("everybody")).Token);
        var calls = new MadeUpCalls(
            JsonDocument.Parse(await http.GetStringAsync("api/openapi.json", Ct)).RootElement,
            new Random(20261128)
        );

        var (broken, answers) = (new List<string>(), new Dictionary<int, int>());
        foreach (var (method, path, says) in calls.All())
            for (var i = 0; i < OfEach; i++)
            {
                using var ask = calls.Make(method, path, says);
                var sent = ask.Content is null ? "" : await ask.Content.ReadAsStringAsync(Ct);
                using var answer = await http.SendAsync(ask, Ct);
                var status = (int)answer.StatusCode;
                answers[status] = answers.GetValueOrDefault(status) + 1;
                // A machine, a carrier or a maker that is not there is 502; nothing else is anybody's fault but ours.
                if (status >= 500 && status != 502)
                    broken.Add(
                        $"{method} {ask.RequestUri} {sent[..Math.Min(sent.Length, 600)]}: {status} {await answer.Content.ReadAsStringAsync(Ct)}"
                    );
            }

        broken.ShouldBeEmpty();
        answers.GetValueOrDefault(200).ShouldBeGreaterThan(300); // it is not all refused at the door
        service.Process.Said.ShouldNotContain("Unhandled exception");
        (await (await service.SignInAsync("admin")).VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }
}
