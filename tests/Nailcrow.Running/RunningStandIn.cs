namespace Nailcrow.Running;

/// <summary>A simulated appliance, carrier, maker or mail server, and hands at it.</summary>
public sealed class RunningStandIn : IAsyncDisposable
{
    private readonly RunningProcess _process;
    private readonly HttpClient _aisle;

    private RunningStandIn(RunningProcess process, Uri address) =>
        (_process, Address, _aisle) = (process, address, new HttpClient { BaseAddress = address });

    public Uri Address { get; }

    public static Task<RunningStandIn> StartAsync(int seed = 7, double rebuildSeconds = 4) =>
        BeginAsync(
            "run",
            "--seed",
            $"{seed}",
            "--rebuild-seconds",
            rebuildSeconds.ToString(System.Globalization.CultureInfo.InvariantCulture)
        );

    /// <summary>One whose management interface asks for a name and a secret, and answers with TLS at <see cref="TlsAddress"/>.</summary>
    public static async Task<RunningStandIn> GuardedAsync(int seed = 7, bool expansion = false)
    {
        string[] more = expansion ? ["--expansion"] : [];
        var machine = await BeginAsync([
            "run",
            "--seed",
            $"{seed}",
            "--rebuild-seconds",
            "4",
            "--secret",
            MachineSecret,
            "--tls",
            "0",
            .. more,
        ]);
        var heard = await machine._process.HearsAsync("With TLS at (https://\\S+), showing (\\S+)");
        (machine.TlsAddress, machine.Certificate) = (new Uri(heard.Groups[1].Value), heard.Groups[2].Value);
        return machine;
    }

    public Uri TlsAddress { get; private set; } = new("about:blank");

    /// <summary>SHA-256 of what it shows, as its own screen says.</summary>
    public string Certificate { get; private set; } = "";

    /// <summary>What a guarded one asks for from 'service'.</summary>
    public const string MachineSecret = "a-secret-of-one-machine";

    /// <param name="tells">Where it tells what becomes of parcels; null to be asked.</param>
    public static Task<RunningStandIn> CarrierAsync(Uri? tells = null) =>
        BeginAsync(["carrier", "--secret", PartnersSecret, .. tells is null ? Array.Empty<string>() : ["--tells", tells.AbsoluteUri]]);

    public static Task<RunningStandIn> MakerAsync() => BeginAsync("maker", "--secret", PartnersSecret);

    /// <summary>A mail server; where it takes mail is <see cref="TakesMailAt"/>.</summary>
    public static async Task<RunningStandIn> MailAsync()
    {
        var mail = await BeginAsync("mail", "--takes-at", "0");
        mail.TakesMailAt = new((await mail._process.HearsAsync("handed in at (smtp://\\S+)")).Groups[1].Value);
        return mail;
    }

    public Uri TakesMailAt { get; private set; } = new("about:blank");

    /// <summary>What simulated carriers and makers sign with.</summary>
    public const string PartnersSecret = "a-secret-of-two-partners";

    private static async Task<RunningStandIn> BeginAsync(params string[] arguments)
    {
        var process = RunningProcess.Start(Built.StandIn, [.. arguments, "--port", "0"], environment: Built.LivesShort);
        var heard = await process.HearsAsync("answers at (http://\\S+)");
        return new(process, new Uri(heard.Groups[1].Value));
    }

    /// <summary>A hand at the machine: "fail/2", "pull/2", "insert/2/SERIAL", "start/vault/2", "behave/hangs".</summary>
    public async Task<string> HandAsync(string what)
    {
        using var answer = await _aisle.PostAsync($"aisle/{what}", null);
        var said = await answer.Content.ReadAsStringAsync();
        return answer.IsSuccessStatusCode ? said : throw new InvalidOperationException($"{what}: {said}");
    }

    /// <summary>How many sessions are open at its management interface.</summary>
    public async Task<int> SignedInAsync() =>
        System.Text.Json.JsonDocument.Parse(await LookAsync()).RootElement.GetProperty("signedIn").GetInt32();

    public async Task<string> LookAsync() => await _aisle.GetStringAsync("aisle/");

    public async ValueTask DisposeAsync()
    {
        _aisle.Dispose();
        await _process.DisposeAsync();
    }
}
