using Nailcrow.Client;
using Nailcrow.GivenTime;
using Nailcrow.Running.Fire;

namespace Nailcrow.Running;

/// <summary>The service on loopback with a database of its own, and people who may sign in.</summary>
public sealed class RunningService : IAsyncDisposable
{
    public const string Password = "a-long-test-password";

    /// <summary>Where it is started, beside the built console.</summary>
    internal static readonly string Home = Path.Combine(Built.Root, "src", "Nailcrow.Service");

    // A test's machine may have a tenth of a processor for a while.
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(5);

    private readonly RunningProcess? _process;
    private readonly WarmLife? _life;
    private readonly Where _where;
    private readonly MovedTime _time = new();
    private TimeSpan _passed;

    private RunningService(RunningProcess? process, WarmLife? life, Uri address, Where where) =>
        (_process, _life, Address, _where) = (process, life, address, where);

    /// <param name="Folder">What it keeps lies here.</param>
    /// <param name="OwnsFolder">The folder goes when it goes.</param>
    /// <param name="SyslogPort">Where it listens for syslog; 0 where it chose one itself.</param>
    /// <param name="GivenTime">Its clock can be moved on with <see cref="PassesAsync"/>.</param>
    /// <param name="Further">What else it is told at its start.</param>
    private sealed record Where(string Folder, bool OwnsFolder, int SyslogPort, bool GivenTime, IReadOnlyList<string> Further);

    /// <summary>Why this one is not started again at its end; null where it is, and held to tell what it told before.</summary>
    public string? NotRestartedBecause { get; set; } = "nobody asked for it";

    /// <summary>Its process, where it has one of its own.</summary>
    public RunningProcess Process =>
        _process ?? throw new InvalidOperationException("It shares its process with others; have it started alone.");

    public Uri Address { get; }

    public string Folder => _where.Folder;

    /// <summary>Where it listens for syslog, once it does: calls are answered a moment before that.</summary>
    public async Task<int> SyslogPortAsync()
    {
        if (_where.SyslogPort == 0)
            return int.Parse(
                (await Process.HearsAsync("\"Port\":(\\d+)")).Groups[1].Value,
                System.Globalization.CultureInfo.InvariantCulture
            );
        await Soon.IsAsync(() => ListensAsync(_where.SyslogPort), CancellationToken.None);
        return _where.SyslogPort;
    }

    private static async Task<bool> ListensAsync(int port)
    {
        try
        {
            using var tcp = new System.Net.Sockets.TcpClient();
            await tcp.ConnectAsync("127.0.0.1", port);
            return true;
        }
        catch (System.Net.Sockets.SocketException)
        {
            return false;
        }
    }

    /// <summary>Whether all services of these tests keep their record on a server, and none has a file to look into.</summary>
    public static bool OnServer => PostgresServer.IsTested;

    /// <summary>Whether there is a run on the file and one on a server, of which this is one.</summary>
    public static bool OnBothInTurn => PostgresServer.IsTestedInTurn;

    /// <summary>How its database is named to a command on the same machine, beside the file.</summary>
    public Task<string[]> DatabaseSettingAsync() => PostgresServer.SettingAsync(Folder);

    /// <summary>All that a service keeps in its folder; its lock is empty, and nobody's to read while it is held.</summary>
    public static IEnumerable<string> KeptIn(string folder) =>
        Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories).Where(f => !f.EndsWith(".lock", StringComparison.Ordinal));

    public string DatabaseFile => Path.Combine(Folder, "nailcrow.db");

    /// <summary>A process of its own, as a user starts it.</summary>
    /// <param name="folder">A folder that a service has used before; null for a new one.</param>
    /// <param name="assembly">Another build of the service than the one beside the caller.</param>
    /// <param name="givenTime">Its clock can be moved on with <see cref="PassesAsync"/>.</param>
    /// <param name="within">A network that it is in alone.</param>
    public static async Task<RunningService> StartAsync(
        string? folder = null,
        double watchSeconds = 1,
        string? assembly = null,
        int hearsEverySeconds = 3600,
        bool pushed = false,
        int syslogPort = 0,
        bool givenTime = false,
        IReadOnlyList<string>? further = null,
        OwnNetwork? within = null
    )
    {
        var where = new Where(
            folder ?? Directory.CreateTempSubdirectory("nailcrow-").FullName,
            folder is null,
            0,
            givenTime,
            further ?? []
        );
        var isTested = (assembly ?? Built.Service) == Built.Service; // what is measured runs as in use
        var process = RunningProcess.Start(
            assembly ?? Built.Service,
            [
                .. Arguments(where.Folder, watchSeconds, hearsEverySeconds, pushed, syslogPort),
                .. await PostgresServer.SettingAsync(where.Folder),
                .. where.Further,
                .. isTested ? AsATestNeeds : [],
                .. givenTime ? Clock(where.Folder) : [],
                .. within?.Settings ?? [],
            ],
            Home,
            [.. Built.LivesShort.Where(_ => assembly is null), .. givenTime ? HasAClock : []],
            within?.Words
        );
        var heard = await process.HearsAsync("Nailcrow listens at.*?(http://[0-9.]+:\\d+)");
        return new(process, null, new Uri(heard.Groups[1].Value), where);
    }

    /// <summary>A service that is started with these words and no others, in a process that it shares; its log is nobody's to read.</summary>
    public static async Task<RunningService> StartWithAsync(string folder, IEnumerable<string> arguments)
    {
        var life = await WarmProcess.First.BeginAsync([.. arguments, .. await PostgresServer.SettingAsync(folder)]);
        var here = new UriBuilder(life.Address) { Host = "127.0.0.1" }.Uri; // also where it listens at every address
        return new(null, life, here, new Where(folder, false, 0, false, []));
    }

    /// <summary>A service with people of every role, the demo's models and sites, and one appliance that may be reached.</summary>
    /// <param name="alone">In a process of its own, which can be listened to and killed.</param>
    /// <param name="further">Settings of its own, as they are written to start it.</param>
    public static async Task<RunningService> StartPeopledAsync(
        Uri? machine = null,
        string? assembly = null,
        int hearsEverySeconds = 3600,
        bool pushed = false,
        bool givenTime = false,
        bool alone = false,
        IReadOnlyList<string>? further = null
    )
    {
        // A build that is measured may be older than the store that this one makes.
        var folder = assembly is null ? await PeopledFolder.CopyAsync() : null;
        var service =
            folder is not null && !alone
                ? await BeginAsync(WarmProcess.First, folder, 1, hearsEverySeconds, pushed, givenTime, further)
                : await StartAsync(folder, 1, assembly, hearsEverySeconds, pushed, givenTime: givenTime, further: further);
        service = new(service._process, service._life, service.Address, service._where with { OwnsFolder = true });
        if (folder is null)
            await PeopledFolder.FillAsync(service);
        if (machine is not null)
            await PeopledFolder.ReachAsync(service, machine);
        service.NotRestartedBecause = assembly is null ? null : "it is measured, not tested";
        return service;
    }

    /// <summary>People of every role, and the demo's models and sites.</summary>
    public Task FillAsync() => PeopledFolder.FillAsync(this);

    /// <summary>It stops as by SIGTERM, and comes up again over what it kept, in a process that remembers nothing of it.</summary>
    public async Task<RunningService> StartsAnewAsync(double watchSeconds = 1)
    {
        await StopAsync();
        return await BeginAsync(
            _life?.In == WarmProcess.Again ? WarmProcess.First : WarmProcess.Again,
            Folder,
            watchSeconds,
            givenTime: _where.GivenTime,
            further: _where.Further
        );
    }

    /// <summary>It is asked to stop, and has.</summary>
    public async Task StopAsync()
    {
        if (_life is not null)
            await _life.EndAsync();
        else
            await Process.StopAsync();
    }

    /// <summary>Has time pass for a service that was started with a clock of its own.</summary>
    /// <returns>What time it is there now.</returns>
    public async Task<DateTimeOffset> PassesAsync(TimeSpan span)
    {
        _time.Pass(span); // whoever works there lives in the same time
        _passed += span;
        return await ClockDoor.PassAsync(ClockSocket(Folder), span);
    }

    public HttpClient Http() => new() { BaseAddress = Address, Timeout = Patience };

    /// <summary>Calls as somebody makes them who has signed in, and writes each by hand.</summary>
    public async Task<HttpClient> HttpAsync(string name)
    {
        var http = Http();
        var token = await new NailcrowClient(http, _time).SignInAsync(name, Password, CancellationToken.None);
        http.DefaultRequestHeaders.Authorization = new("Bearer", token.AccessToken);
        return http;
    }

    /// <summary>An administrator lets them in, and they choose a password of their own, which is the one of all tests.</summary>
    public async Task LetInAsync(string name, params Core.People.Role[] roles)
    {
        var let = await (await SignInAsync("admin")).AddPersonAsync(new(name, name, null, roles), CancellationToken.None);
        var first = let.FirstPassword ?? throw new InvalidOperationException($"{name} was given no password.");
        var client = new NailcrowClient(Http(), _time);
        client.UseToken((await client.SignInAsync(name, first, CancellationToken.None)).AccessToken);
        await client.ChangePasswordAsync(first, Password, CancellationToken.None);
    }

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
            // Where the same test is run on the file as well it is held to that there, which takes a third of a run.
            var isHeldElsewhere = OnServer && OnBothInTurn;
            if (NotRestartedBecause is null && !isHeldElsewhere && !(_life?.HasEnded ?? Process.HasExited))
                await RestartsAsItWasAsync();
        }
        finally
        {
            if (_life is not null)
                await _life.DisposeAsync();
            if (_process is not null)
                await _process.DisposeAsync();
            if (_where.OwnsFolder)
            {
                await PostgresServer.DropAsync(Folder);
                Directory.Delete(Folder, recursive: true);
            }
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
        // Nobody is asked any more: what is compared is the record, and not what machines say in the meantime.
        await using var again = await StartsAnewAsync(watchSeconds: 3600);
        if (_where.GivenTime)
            await again.PassesAsync(_passed);
        using var after = again.Http();
        after.DefaultRequestHeaders.Authorization = new("Bearer", token);
        var troubles = then.Differences(await AsItWas.OfAsync(after)).ToList();
        var admin = new NailcrowClient(after, TimeProvider.System);
        troubles.AddRange((await admin.VerifyAsync(CancellationToken.None)).Troubles.Select(t => $"{t.Kind}: {t.Sentence}"));
        await admin.RebuildProjectionsAsync(CancellationToken.None);
        troubles.AddRange(then.Differences(await AsItWas.OfAsync(after, listsAlone: true)).Select(d => $"With lists told anew, {d}"));
        if (troubles.Count > 0)
            throw new InvalidOperationException($"After a restart it is not as it was:\n{string.Join("\n", troubles.Take(5))}");
    }

    private static async Task<RunningService> BeginAsync(
        WarmProcess process,
        string folder,
        double watchSeconds,
        int hearsEverySeconds = 3600,
        bool pushed = false,
        bool givenTime = false,
        IReadOnlyList<string>? further = null
    )
    {
        var syslog = FreePort(); // who shares a process cannot say beside it which port it chose
        var life = await process.BeginAsync([
            .. Arguments(folder, watchSeconds, hearsEverySeconds, pushed, syslog),
            .. await PostgresServer.SettingAsync(folder),
            .. further ?? [],
            .. AsATestNeeds,
            .. givenTime ? Clock(folder) : [],
        ]);
        return new(null, life, life.Address, new Where(folder, false, syslog, givenTime, further ?? []));
    }

    // A thousand tests sign in some thousand times; what is measured hashes as it does in use.
    // And most have no need of the library, which takes two seconds of a core to prove.
    private static readonly string[] AsATestNeeds = ["--Nailcrow:PasswordRounds", "1000", "--Nailcrow:ReadsAhead", "false"];

    private static string[] Arguments(string folder, double watchSeconds, int hearsEverySeconds, bool pushed, int syslogPort)
    {
        var port = pushed ? FreePort() : 0;
        return
        [
            "--urls",
            $"http://127.0.0.1:{port}",
            .. pushed ? new[] { "--Nailcrow:Intake:PublicUrl", $"http://127.0.0.1:{port}" } : [],
            "--Nailcrow:Data",
            Path.Combine(folder, "nailcrow.db"),
            "--Nailcrow:Procedures",
            Path.Combine(Built.Root, "procedures"),
            "--Nailcrow:Link:SecretFiles",
            Path.Combine(folder, "secrets"),
            // Whoever presses on a page expects a machine to answer in seconds; a test's processor may not be there for as long.
            "--Nailcrow:Link:CallDeadline",
            "00:00:30",
            "--Nailcrow:Link:LookDeadline",
            "00:02:00",
            "--Nailcrow:WatchEverySeconds",
            watchSeconds.ToString(System.Globalization.CultureInfo.InvariantCulture),
            "--Nailcrow:Intake:SubscribeEverySeconds",
            $"{hearsEverySeconds}",
            "--Nailcrow:Intake:SyslogPort",
            $"{syslogPort}",
            "--Nailcrow:Outside:AnswerWithinSeconds",
            "2",
            "--Nailcrow:Outside:FirstPauseSeconds",
            "0.05",
            "--Nailcrow:Outside:LongestPauseSeconds",
            "0.4",
            "--Nailcrow:Outside:Tries",
            "6",
            "--Nailcrow:Outside:RemindEverySeconds",
            "1",
            "--Nailcrow:Outside:AskEverySeconds",
            "0.5",
            "--Nailcrow:FirstAdmin:Name",
            "admin",
            "--Nailcrow:FirstAdmin:Password",
            Password,
        ];
    }

    private static string ClockSocket(string folder) => Path.Combine(folder, "clock");

    private static string[] Clock(string folder)
    {
        File.Delete(ClockSocket(folder)); // of a service that ran in this folder before
        // A server's clock goes as it goes, and a test that has months pass is about months.
        string[] apart = OnServer ? ["--Nailcrow:ClockMayBeOffSeconds", "1000000000"] : [];
        return [$"--{TimeIsGiven.Setting}", ClockSocket(folder), .. apart];
    }

    // What a process that has such a clock is started with.
    private static readonly KeyValuePair<string, string>[] HasAClock =
    [
        new("DOTNET_STARTUP_HOOKS", typeof(TimeIsGiven).Assembly.Location),
        new("ASPNETCORE_HOSTINGSTARTUPASSEMBLIES", typeof(TimeIsGiven).Assembly.GetName().Name!),
    ];

    /// <summary>A service that is pushed to has to know its own address before it starts.</summary>
    private static int FreePort()
    {
        using var listener = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        return ((System.Net.IPEndPoint)listener.LocalEndpoint).Port;
    }
}
