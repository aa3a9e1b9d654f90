using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.GivenTime;

namespace Nailcrow.Running;

/// <summary>The service on loopback with a database of its own, and people who may sign in.</summary>
public sealed class RunningService : IAsyncDisposable
{
    public const string Password = "a-long-test-password";

    private readonly bool _ownsFolder;
    private readonly bool _givenTime;
    private readonly MovedTime _time = new();
    private TimeSpan _passed;

    private RunningService(RunningProcess process, Uri address, string folder, bool ownsFolder, bool givenTime) =>
        (Process, Address, Folder, _ownsFolder, _givenTime) = (process, address, folder, ownsFolder, givenTime);

    /// <summary>Why this one is not started again at its end; null where it is, and held to tell what it told before.</summary>
    public string? NotRestartedBecause { get; set; } = "nobody asked for it";

    public RunningProcess Process { get; }

    public Uri Address { get; }

    public string Folder { get; }

    /// <summary>Where it listens for syslog.</summary>
    public async Task<int> SyslogPortAsync() =>
        int.Parse((await Process.HearsAsync("\"Port\":(\\d+)")).Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture);

    public string DatabaseFile => Path.Combine(Folder, "nailcrow.db");

    /// <param name="folder">A folder that a service has used before; null for a new one.</param>
    /// <param name="assembly">Another build of the service than the one beside the caller.</param>
    /// <param name="givenTime">Its clock can be moved on with <see cref="PassesAsync"/>.</param>
    public static async Task<RunningService> StartAsync(
        string? folder = null,
        double watchSeconds = 1,
        string? assembly = null,
        int hearsEverySeconds = 3600,
        bool pushed = false,
        int syslogPort = 0,
        bool givenTime = false
    )
    {
        var own = folder is null;
        var port = pushed ? FreePort() : 0;
        folder ??= Directory.CreateTempSubdirectory("nailcrow-").FullName;
        var process = RunningProcess.Start(
            assembly ?? Built.Assembly("Nailcrow.Service", "nailcrow-service"),
            [
                "--urls",
                $"http://127.0.0.1:{port}",
                .. pushed ? new[] { "--Nailcrow:Intake:PublicUrl", $"http://127.0.0.1:{port}" } : [],
                "--Nailcrow:Data",
                Path.Combine(folder, "nailcrow.db"),
                "--Nailcrow:Procedures",
                Path.Combine(Built.Root, "procedures"),
                "--Nailcrow:WatchEverySeconds",
                watchSeconds.ToString(System.Globalization.CultureInfo.InvariantCulture),
                "--Nailcrow:Intake:SubscribeEverySeconds",
                $"{hearsEverySeconds}",
                "--Nailcrow:Intake:SyslogPort",
                $"{syslogPort}",
                "--Nailcrow:FirstAdmin:Name",
                "admin",
                "--Nailcrow:FirstAdmin:Password",
                Password,
            ],
            Path.Combine(Built.Root, "src", "Nailcrow.Service"), // where the built console lies
            givenTime ? Clock(folder) : null
        );
        var heard = await process.HearsAsync("Nailcrow listens at.*?(http://127\\.0\\.0\\.1:\\d+)");
        return new(process, new Uri(heard.Groups[1].Value), folder, own, givenTime);
    }

    /// <summary>A service with people of every role, the demo's models and sites, and one appliance that may be reached.</summary>
    public static async Task<RunningService> StartPeopledAsync(
        Uri? machine = null,
        string? assembly = null,
        int hearsEverySeconds = 3600,
        bool pushed = false,
        bool givenTime = false
    )
    {
        var service = await StartAsync(assembly: assembly, hearsEverySeconds: hearsEverySeconds, pushed: pushed, givenTime: givenTime);
        var admin = await service.SignInAsync("admin");
        foreach (
            var (name, role) in new[]
            {
                ("ilka", Role.Engineer),
                ("tamsel", Role.Engineer),
                ("dorrik", Role.Dispatcher),
                ("sefa", Role.Stores),
                ("lioth", Role.Lead),
            }
        )
            await admin.AddPersonAsync(new PersonAsk(name, name, Password, [role]), CancellationToken.None);
        await admin.LoadAsync(Reference(machine), CancellationToken.None);
        service.NotRestartedBecause = assembly is null ? null : "it is measured, not tested";
        return service;
    }

    /// <summary>Has time pass for a service that was started with a clock of its own.</summary>
    /// <returns>What time it is there now.</returns>
    public async Task<DateTimeOffset> PassesAsync(TimeSpan span)
    {
        _time.Pass(span); // whoever works there lives in the same time
        _passed += span;
        return await ClockDoor.PassAsync(ClockSocket(Folder), span);
    }

    public HttpClient Http() => new() { BaseAddress = Address };

    public async Task<NailcrowClient> SignInAsync(string name)
    {
        var client = new NailcrowClient(Http(), _time);
        client.UseToken((await client.SignInAsync(name, Password, CancellationToken.None)).AccessToken);
        return client;
    }

    public async ValueTask DisposeAsync()
    {
        try
        {
            if (NotRestartedBecause is null && !Process.HasExited)
                await RestartsAsItWasAsync();
        }
        finally
        {
            await Process.DisposeAsync();
            if (_ownsFolder)
                Directory.Delete(Folder, recursive: true);
        }
    }

    /// <summary>
    /// What was true by luck of what the service remembers is found here: whatever a test did, after a restart every ticket, its
    /// journal, report and paper are as they were, everything verifies, and lists that are told anew say what the lists said.
    /// </summary>
    private async Task RestartsAsItWasAsync()
    {
        using var before = Http();
        var token = (await new NailcrowClient(before, _time).SignInAsync("admin", Password, CancellationToken.None)).AccessToken;
        before.DefaultRequestHeaders.Authorization = new("Bearer", token);
        var then = await AsItWas.OfAsync(before);
        await Process.StopAsync();
        // Nobody is asked any more: what is compared is the record, and not what machines say in the meantime.
        await using var again = await StartAsync(Folder, watchSeconds: 3600, givenTime: _givenTime);
        if (_givenTime)
            await again.PassesAsync(_passed);
        using var after = again.Http();
        after.DefaultRequestHeaders.Authorization = new("Bearer", token);
        var troubles = then.Differences(await AsItWas.OfAsync(after)).ToList();
        var admin = new NailcrowClient(after, TimeProvider.System);
        troubles.AddRange((await admin.VerifyAsync(CancellationToken.None)).Troubles.Select(t => $"{t.Kind}: {t.Sentence}"));
        await admin.RebuildProjectionsAsync(CancellationToken.None);
        troubles.AddRange(then.Differences(await AsItWas.OfAsync(after)).Select(d => $"With lists told anew, {d}"));
        if (troubles.Count > 0)
            throw new InvalidOperationException($"After a restart it is not as it was:\n{string.Join("\n", troubles.Take(5))}");
    }

    private static string ClockSocket(string folder) => Path.Combine(folder, "clock");

    private static Dictionary<string, string> Clock(string folder)
    {
        File.Delete(ClockSocket(folder)); // of a service that ran in this folder before
        return new()
        {
            ["DOTNET_STARTUP_HOOKS"] = typeof(TimeIsGiven).Assembly.Location,
            ["ASPNETCORE_HOSTINGSTARTUPASSEMBLIES"] = typeof(TimeIsGiven).Assembly.GetName().Name!,
            [TimeIsGiven.Variable] = ClockSocket(folder),
        };
    }

    /// <summary>A service that is pushed to has to know its own address before it starts.</summary>
    private static int FreePort()
    {
        using var listener = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        return ((System.Net.IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static ReferenceData Reference(Uri? machine)
    {
        var demo =
            System.Text.Json.JsonSerializer.Deserialize(
                File.ReadAllText(Path.Combine(Built.Root, "demo", "reference.json")),
                ContractJson.Default.ReferenceData
            ) ?? throw new InvalidDataException("demo/reference.json is empty.");
        return demo with
        {
            Appliances =
            [
                .. demo.Appliances.Select(a => a with { Address = a.Asset == "FSC-0107" ? machine?.ToString().TrimEnd('/') : null }),
            ],
        };
    }
}
