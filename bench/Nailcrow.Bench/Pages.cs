using System.Diagnostics;
using System.Globalization;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Client;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Running;
using Nailcrow.Store;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Bench;

/// <summary>The first page of tickets, and one ticket's page, at a thousand tickets and at a hundred thousand.</summary>
internal static class Pages
{
    private const int Few = 1_000;
    private const int Many = 100_000;
    private const int Rounds = 400;

    public static async Task MeasureAsync()
    {
        await using var few = await WithAsync(Few);
        await using var many = await WithAsync(Many);
        var (fewAsk, manyAsk) = (await few.SignInAsync("admin"), await many.SignInAsync("admin"));
        await BothAsync(
            "first page of 50 tickets",
            fewAsk,
            manyAsk,
            (client, _, _) => client.TicketsAsync(new(Ended: false), CancellationToken.None)
        );
        await BothAsync(
            "one ticket's page, any of them",
            fewAsk,
            manyAsk,
            (client, count, random) => client.TicketAsync(1001 + random.Next(count), CancellationToken.None)
        );
        await BothAsync(
            "find by a serial's last five",
            fewAsk,
            manyAsk,
            (client, count, random) =>
                client.TicketsAsync(new(Find: $"{1001 + random.Next(count):00000}"[^5..] + "Z"), CancellationToken.None)
        );
        foreach (
            var (what, search) in new (string, TicketSearch)[]
            {
                ("find what nobody has", new(Find: "no such thing")),
                ("find what every ticket has", new(Find: "deep arch")),
                ("find what every ticket has, worst first", new(Find: "deep arch", Order: TicketOrder.Worst)),
                ("worst first, ended ones too", new(Order: TicketOrder.Worst)),
                ("due first, page 20", new(Ended: false, Order: TicketOrder.DueFirst, Skip: 950)),
            }
        )
            await BothAsync(what, fewAsk, manyAsk, (client, _, _) => client.TicketsAsync(search, CancellationToken.None));
        await BothAsync("what waits for whom", fewAsk, manyAsk, (client, _, _) => client.WaitingAsync(50, CancellationToken.None));
        await BothAsync("the desk", fewAsk, manyAsk, (client, _, _) => client.DeskAsync(CancellationToken.None));
    }

    /// <summary>
    /// The same lists in the browser, on a phone and at a desk: what holds a page for over 50 ms. <c>NAILCROW_BENCH_TICKETS</c> says of how
    /// many tickets.
    /// </summary>
    public static async Task MeasureListsAsync()
    {
        var tickets = int.TryParse(Environment.GetEnvironmentVariable("NAILCROW_BENCH_TICKETS"), CultureInfo.InvariantCulture, out var said)
            ? said
            : Many;
        await using var service = await WithAsync(tickets);
        await service.LetInAsync("dorrik", Role.Dispatcher, Role.Lead);
        foreach (var phone in new[] { true, false })
            await InTheBrowserAsync(service, phone);
    }

    /// <summary>What somebody does with long lists: opens them, scrolls, asks for more, types what to find.</summary>
    private static async Task InTheBrowserAsync(RunningService service, bool phone)
    {
        await using var watched = await Watched.SignedInAsync(service, "dorrik", phone);
        var where = phone ? "a phone slowed 4 times" : "a desk";
        foreach (var (path, shows) in new[] { ("/", "main h2"), ("/desk", ".desk-line"), ("/machines", "h1") })
        {
            await watched.OpenAsync(path, shows);
            await watched.ScrollAsync();
            if (await watched.Page.GetByText("Show more").CountAsync() > 0)
                await watched.Page.GetByText("Show more").ClickAsync();
            await watched.ScrollAsync();
            await watched.TellAsync($"{path} on {where}, scrolled, more shown");
            if (path == "/machines")
                continue;
            await watched.Page.GetByLabel("Find", new() { Exact = true }).PressSequentiallyAsync("00042Z", new() { Delay = 60 });
            await watched.TellAsync($"{path} on {where}, a serial typed into Find");
        }
    }

    /// <summary>Asked in turn, so that whatever else the machine does falls on both alike.</summary>
    private static async Task BothAsync(string what, NailcrowClient few, NailcrowClient many, Func<NailcrowClient, int, Random, Task> ask)
    {
        var random = new Random(7);
        var (fewTook, manyTook) = (new List<double>(), new List<double>());
        for (var round = 0; round < Rounds; round++)
        {
            fewTook.Add(await TookAsync(() => ask(few, Few, random)));
            manyTook.Add(await TookAsync(() => ask(many, Many, random)));
        }
        Told.Line(what, Told.Median(manyTook.Skip(Rounds / 4)), Told.Median(fewTook.Skip(Rounds / 4)), "ms", "at most 1.5");
    }

    private static async Task<double> TookAsync(Func<Task> ask)
    {
        var clock = Stopwatch.StartNew();
        await ask();
        return clock.Elapsed.TotalMilliseconds;
    }

    /// <summary>Written through the store itself, so that rows and lists are what they would be.</summary>
    private static async Task<RunningService> WithAsync(int tickets)
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-pages-").FullName;
        await using (
            var services = new ServiceCollection()
                .AddSingleton(TimeProvider.System)
                .AddLogging()
                .AddNailcrowStore(Path.Combine(folder, "nailcrow.db"))
                .AddSingleton<ISecretKeeper, KeptRecord.NoSecrets>()
                .BuildServiceProvider()
        )
        {
            await services.GetRequiredService<Database>().MigrateAsync(CancellationToken.None);
            var journal = services.GetRequiredService<TicketJournal>();
            foreach (var some in Enumerable.Range(0, tickets).Chunk(2_000))
                await Task.WhenAll(some.Select(i => OpenAsync(journal, i)));
        }
        return await RunningService.StartAsync(folder, 60, Published.Service);
    }

    private static async Task OpenAsync(TicketJournal journal, int i)
    {
        var dispatcher = new Actor("dorrik", [Role.Dispatcher]);
        Intent By(EntryBody body) => new(Guid.CreateVersion7(), DateTimeOffset.UtcNow, 0, dispatcher, body);
        var report = new FaultReported(
            $"FSC-{i:00000}",
            $"BRK12-{i:00000}",
            "Brackmere B12",
            "Corrin Records Trust",
            "Corrin Deep Archive",
            "Vault hall",
            JobKind.Fault,
            "Amber lamp",
            "2",
            $"P8BA{i:00000}Z"
        );
        var opened = (Written.Kept)await journal.OpenAsync(By(report), CancellationToken.None);
        await journal.WriteAsync(opened.Entry.Ticket, By(new EngineerAssigned($"engineer{i % 2000}")), CancellationToken.None);
    }
}
