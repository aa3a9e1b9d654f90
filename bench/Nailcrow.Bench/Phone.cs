using Microsoft.Playwright;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>A procedure of 500 steps on a phone: 390 by 844, its processor slowed to a quarter. Counts tasks that hold the page for more than 50 ms.</summary>
internal static class Phone
{
    private const int Steps = 500;
    private const int Followed = 40;

    public static async Task MeasureAsync()
    {
        await using var service = await RunningService.StartPeopledAsync(assembly: Published.Service);
        var ticket = await TicketAsync(service);
        await using var watched = await Watched.SignedInAsync(service, "ilka", phone: true);
        var page = watched.Page;

        await watched.OpenAsync($"/tickets/{ticket}/run", "#say:has-text('Turn screw 1 ')");
        await FollowAsync(page, Followed);
        await watched.TellAsync($"{Followed} steps followed");
        await page.GetByRole(AriaRole.Button, new() { Name = "Something is different" }).ClickAsync();
        await page.GetByRole(AriaRole.Button, new() { Name = "The whole sheet" }).ClickAsync();
        await page.Locator("section[aria-label='The whole sheet']").WaitForAsync();
        await watched.TellAsync("the whole sheet opened");
        await watched.ScrollAsync();
        await watched.TellAsync("the whole sheet scrolled to its end");

        await watched.OpenAsync($"/tickets/{ticket}/paper", "text=Part 20");
        await page.EvaluateAsync(OpenChapters);
        await watched.TellAsync("the form of its paper, 4 more chapters opened");
        await watched.ScrollAsync();
        await watched.TellAsync("the form of its paper scrolled");
        await page.Locator("input.paper-time").Nth(6).PressSequentiallyAsync("1015", new() { Delay = 60 });
        await watched.TellAsync("a time typed into it");

        await page.GotoAsync("/procedures/long-one");
        await page.GetByLabel("As it would be on").SelectOptionAsync(new SelectOptionValue { Index = 1 });
        await page.Locator($"text=Turn screw {Steps - 2} by one turn").First.WaitForAsync();
        await watched.BeginAsync();
        await watched.ScrollAsync();
        await watched.TellAsync("its preview in the library scrolled");
    }

    // Pressed from within the page: a driver that looks for a button by its role walks the whole page for it, in the page's own time.
    private const string PressDone = """
        async steps => {
          const place = () => document.querySelector('#say')?.textContent
          for (let i = 0; i < steps; i++) {
            const from = place()
            Array.from(document.querySelectorAll('.run-foot button')).find(b => b.textContent === 'Done').click()
            while (place() === from) await new Promise(done => setTimeout(done, 20))
          }
        }
        """;

    private static Task FollowAsync(IPage page, int steps) => page.EvaluateAsync(PressDone, steps);

    private const string OpenChapters = """
        async () => {
          for (const summary of Array.from(document.querySelectorAll('details:not([open]) > summary')).slice(0, 4)) {
            summary.click()
            await new Promise(done => setTimeout(done, 300))
          }
        }
        """;

    private static async Task<long> TicketAsync(RunningService service)
    {
        var (ilka, lead) = (await service.SignInAsync("ilka"), await service.SignInAsync("lioth"));
        await lead.PublishAsync(new("long-one.yaml", new Dictionary<string, string> { ["long-one.yaml"] = Long() }), default);
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-0203", "Lamp off", Bay: "5"), default)).Ticket;
        await ilka.WriteAsync(ticket, new EngineerAssigned("ilka"), default);
        await ilka.WriteAsync(ticket, new ArrivedOnSite(), default);
        await ilka.StartRunAsync(ticket, "long-one", default);
        return ticket;
    }

    private static string Long() =>
        "procedure: long-one\ntitle: A long one\ncomes-back: unchanged\nby-name: yes\napplies-to: always\nnot-so: stuck\nchapters:\n"
        + string.Concat(Enumerable.Range(0, 20).Select(Chapter))
        + "      - id: seen\n        gate: It was looked at.\n        needs: seen-again\n        then: end\n    "
        + "  - id: stuck\n        call: Call.\n        with: [asset]\n        then: back\n";

    private static string Chapter(int chapter) =>
        $"  - chapter: Part {chapter + 1}\n    steps:\n"
        + string.Concat(
            Enumerable
                .Range(1, 25)
                .Select(i => chapter * 25 + i)
                .Where(i => i <= Steps - 2)
                .Select(i =>
                    $"      - id: turn{i}\n        do: Turn screw {i} by one turn and look at the mark beside it.\n        see: The mark has moved.\n"
                )
        );
}
