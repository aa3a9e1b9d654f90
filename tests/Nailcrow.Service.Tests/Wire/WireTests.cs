using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using System.Text;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.People.Log;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Wire;

/// <summary>How calls come in: over TLS, through proxies, for which names, from which pages.</summary>
public sealed class WireTests : IDisposable
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private readonly string _folder = Directory.CreateTempSubdirectory("nailcrow-wire-").FullName;

    private string Certificate => Path.Combine(_folder, "certificate.pem");

    private string Key => Path.Combine(_folder, "key.pem");

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Fact]
    public async Task Over_TLS_a_browser_is_told_to_remember_it_and_its_cookie_goes_no_other_way()
    {
        Renew("first.firm.example");
        await using var service = await StartAsync("https://127.0.0.1:0", Secured);
        using var http = Over(service.Address);

        using var answer = await http.PostAsJsonAsync(
            "api/sign-in/console",
            new { name = "admin", password = RunningService.Password },
            Ct
        );

        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        answer.Headers.GetValues("Strict-Transport-Security").Single().ShouldBe("max-age=31536000");
        // The beginning of its name has a browser take it from this host alone (RFC 6265bis, section 4.1.3.2), where it says all of these.
        var cookie = answer.Headers.GetValues("Set-Cookie").Single(c => c.StartsWith("__Host-nailcrow=", StringComparison.Ordinal));
        cookie.ShouldContain("; secure", Case.Insensitive);
        cookie.ShouldContain("; path=/;", Case.Insensitive);
        cookie.ShouldNotContain("domain=", Case.Insensitive);
        (await http.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await http.PostAsync("api/sign-out", null, Ct)).Headers.GetValues("Set-Cookie").Single().ShouldStartWith("__Host-nailcrow=;");
    }

    [Fact]
    public async Task A_renewed_certificate_is_shown_without_a_restart_and_one_that_is_none_is_not()
    {
        Renew("first.firm.example");
        await using var service = await StartAloneAsync("https://127.0.0.1:0", Secured);
        (await ShownAsync(service.Address)).ShouldBe("CN=first.firm.example");

        Renew("second.firm.example");
        await Soon.IsAsync(async () => await ShownAsync(service.Address) == "CN=second.firm.example", Ct);
        await File.WriteAllTextAsync(Certificate, "-----BEGIN CERTIFICATE-----\nhalf written", Ct);

        // It is looked at when somebody comes.
        await Soon.IsAsync(
            async () =>
            {
                (await ShownAsync(service.Address)).ShouldBe("CN=second.firm.example");
                return service.Process.Said.Contains("The one before is shown on", StringComparison.Ordinal);
            },
            Ct
        );
    }

    [Fact]
    public async Task A_syslog_sender_speaks_over_TLS()
    {
        Renew("log.firm.example");
        await using var service = await StartAloneAsync(
            "http://127.0.0.1:0",
            [.. Secured, "--Nailcrow:Intake:SyslogPort", "0", "--Nailcrow:Intake:SyslogTlsPort", "0"]
        );
        var port = int.Parse((await service.Process.HearsAsync("over TLS on .*?:(\\d+)")).Groups[1].Value);
        using var tcp = new TcpClient("127.0.0.1", port);
        await using var tls = new SslStream(tcp.GetStream(), false, (_, _, _, _) => true);
        await tls.AuthenticateAsClientAsync("log.firm.example");
        const string Line = "<134>Mar  1 08:00:00 strange-machine kernel: a line nobody knows";

        await tls.WriteAsync(Encoding.UTF8.GetBytes($"{Line.Length} {Line}"), Ct);

        var admin = await SignInAsync(service.Address);
        await Soon.IsAsync(async () => (await admin.IntakeAsync(null, Ct)).Items.Any(i => i.Text == Line), Ct);
    }

    [Theory]
    [InlineData("http://0.0.0.0:0", "", "http://0.0.0.0:0 is to be listened at without TLS, where everybody on the way reads passwords.")]
    [InlineData("https://127.0.0.1:0", "", "https://127.0.0.1:0 is to be listened at, and there is no certificate;")]
    [InlineData(
        "http://127.0.0.1:0",
        "--Nailcrow:Tls:Certificate=/nowhere.pem --Nailcrow:Tls:Key=/nowhere.key",
        "The certificate in '/nowhere.pem' with the key in '/nowhere.key' cannot be used: "
    )]
    [InlineData(
        "http://127.0.0.1:0",
        "--Nailcrow:Proxies:0=somewhere",
        "Nailcrow:Proxies has 'somewhere'; accepted: an address or a network, such as 10.0.0.5 or 10.0.0.0/24."
    )]
    [InlineData(
        "http://127.0.0.1:0",
        "--Kestrel:Endpoints:Open:Url=http://0.0.0.0:0",
        "Kestrel:Endpoints is set; say where to listen with --urls"
    )]
    [InlineData(
        "http://127.0.0.1:0",
        "--Nailcrow:PublicUrl=firm",
        "Nailcrow:PublicUrl is 'firm'; write one like https://nailcrow.firm.example."
    )]
    [InlineData("http://127.0.0.1:0", "--Nailcrow:PasswordRounds=3", "Nailcrow:PasswordRounds is 3; accepted: 1000 to 10000000.")]
    [InlineData("http://127.0.0.1:0", "--Nailcrow:Intake:SyslogPort=70000", "Nailcrow:Intake:SyslogPort is 70000; accepted: 0 to 65535.")]
    [InlineData(
        "http://127.0.0.1:0",
        "--Nailcrow:Intake:SyslogPort=0 --Nailcrow:Intake:SyslogTlsPort=0",
        "Nailcrow:Intake:SyslogTlsPort is set, and there is no certificate;"
    )]
    public async Task What_would_be_open_or_cannot_work_is_not_started(string urls, string settings, string sentence)
    {
        await using var process = Begin(urls, settings.Split(' ', StringSplitOptions.RemoveEmptyEntries));

        (await process.EndsAsync()).ShouldBe(1);

        process.Said.ShouldContain(sentence);
        process.Said.ShouldNotContain("   at ");
    }

    [Fact]
    public async Task Who_says_in_so_many_words_that_a_proxy_does_it_listens_without_TLS()
    {
        await using var service = await StartAsync("http://0.0.0.0:0", ["--Nailcrow:PlainHttp=true"]);

        (await Over(service.Address).GetAsync("health/live", Ct)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Theory]
    [InlineData(true, "198.51.100.7")]
    [InlineData(false, "127.0.0.1")]
    public async Task Where_somebody_is_is_believed_of_proxies_that_were_named_and_of_nobody_else(bool named, string told)
    {
        await using var service = await StartAsync("http://127.0.0.1:0", named ? ["--Nailcrow:Proxies:0=127.0.0.0/8"] : []);
        using var http = Over(service.Address);
        http.DefaultRequestHeaders.Add("X-Forwarded-For", "198.51.100.7");

        await http.PostAsJsonAsync("api/sign-in", new { name = "nobody-here", password = "not-the-right-one" }, Ct);

        var line = (
            await (await SignInAsync(service.Address)).SecurityLogAsync("nobody-here", SecurityEvent.SignInRefused, null, 1, Ct)
        ).Lines.ShouldHaveSingleItem();
        line.Address.ShouldBe(told);
    }

    [Fact]
    public async Task Links_lead_where_the_service_was_told_to_be_and_never_where_a_caller_says()
    {
        await using var service = await StartAsync("http://127.0.0.1:0", ["--Nailcrow:PublicUrl=https://swaps.firm.example"]);
        var admin = await SignInAsync(service.Address);
        using var http = Over(service.Address);
        http.DefaultRequestHeaders.Add("Authorization", $"Bearer {admin.Token}");

        (await http.GetStringAsync("api/days/admin", Ct)).ShouldContain("https://swaps.firm.example/api/calendars/");
        http.DefaultRequestHeaders.Host = "swaps.firm.example";
        (await http.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.OK);
        http.DefaultRequestHeaders.Host = "evil.example";
        (await http.GetAsync("api/me", Ct)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Theory]
    [InlineData("Origin", "https://evil.example", 403)]
    [InlineData("Origin", "null", 403)]
    [InlineData("Sec-Fetch-Site", "cross-site", 403)]
    [InlineData("Sec-Fetch-Site", "same-site", 403)]
    [InlineData("Sec-Fetch-Site", "same-origin", 204)]
    [InlineData("Origin", "ours", 204)]
    [InlineData("Origin", "https://swaps.firm.example", 204)]
    [InlineData("Origin", "http://swaps.firm.example", 403)]
    public async Task A_page_of_another_site_writes_nothing_with_our_cookie(string header, string value, int status)
    {
        await using var service = await StartAsync("http://127.0.0.1:0", ["--Nailcrow:PublicUrl=https://swaps.firm.example"]);
        using var http = Over(service.Address);
        (
            await http.PostAsJsonAsync("api/sign-in/console", new { name = "admin", password = RunningService.Password }, Ct)
        ).EnsureSuccessStatusCode();
        http.DefaultRequestHeaders.Add(header, value == "ours" ? service.Address.GetLeftPart(UriPartial.Authority) : value);

        using var answer = await http.PostAsync("api/sign-out", null, Ct);

        ((int)answer.StatusCode).ShouldBe(status);
        (await http.GetAsync("api/me", Ct)).IsSuccessStatusCode.ShouldBe(status == 403);
    }

    [Fact]
    public async Task A_service_that_was_told_of_no_administrator_has_nobody_and_says_so()
    {
        await using var process = RunningProcess.Start(
            Built.Service,
            [
                "--urls",
                "http://127.0.0.1:0",
                "--Nailcrow:Data",
                Path.Combine(_folder, "nailcrow.db"),
                "--Nailcrow:Procedures",
                Path.Combine(Built.Root, "procedures"),
            ],
            _folder,
            Built.LivesShort
        );
        var heard = await process.HearsAsync("Nailcrow listens at.*?(http://[0-9.:]+)");
        await process.HearsAsync("Nobody can sign in yet");
        using var http = new HttpClient { BaseAddress = new Uri(heard.Groups[1].Value) };

        foreach (var name in new[] { "admin", "nailcrow", "root", "" })
            (await http.PostAsJsonAsync("api/sign-in", new { name, password = "" }, Ct)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task No_answer_about_the_job_stays_in_a_cache()
    {
        await using var service = await StartAsync("http://127.0.0.1:0", []);
        using var http = Over(service.Address);

        foreach (var path in new[] { "api/me", "api/tickets/1", "api/openapi.json", "api/no-such-thing" })
            (await http.GetAsync(path, Ct)).Headers.CacheControl!.NoStore.ShouldBeTrue(path);
    }

    [Theory]
    [InlineData("http://127.0.0.1:0", 33)]
    [InlineData("https://127.0.0.1:0", 34)]
    public async Task Each_row_that_a_stranger_can_try_holds_against_the_service_as_it_runs(string urls, int rows)
    {
        Renew("swaps.firm.example");
        await using var service = await StartAsync(urls, urls.StartsWith("https", StringComparison.Ordinal) ? Secured : []);
        var start = new ProcessStartInfo("node", [Path.Combine(Built.Root, "tools", "check-asvs.mjs"), service.Address.ToString(), "admin"])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.Environment["NAILCROW_PASSWORD"] = RunningService.Password;
        start.Environment["NODE_TLS_REJECT_UNAUTHORIZED"] = "0"; // the certificate is its own
        using var script = Process.Start(start) ?? throw new InvalidOperationException("node did not start.");
        var (told, wrong) = (script.StandardOutput.ReadToEndAsync(Ct), script.StandardError.ReadToEndAsync(Ct));
        await script.WaitForExitAsync(Ct);

        (await told).Split('\n').Where(line => line.Contains("BROKEN", StringComparison.Ordinal)).ShouldBeEmpty(await wrong);
        (await told).ShouldContain($"{rows} of {rows} rows hold");
    }

    private string[] Secured => ["--Nailcrow:Tls:Certificate", Certificate, "--Nailcrow:Tls:Key", Key];

    private sealed record Started(RunningProcess Process, Uri Address) : IAsyncDisposable
    {
        public ValueTask DisposeAsync() => Process.DisposeAsync();
    }

    private string[] Words(string urls, string[] more) =>
        [
            "--urls",
            urls,
            "--Nailcrow:Data",
            Path.Combine(_folder, "nailcrow.db"),
            "--Nailcrow:Procedures",
            Path.Combine(Built.Root, "procedures"),
            "--Nailcrow:FirstAdmin:Name",
            "admin",
            "--Nailcrow:FirstAdmin:Password",
            RunningService.Password,
            "--Nailcrow:PasswordRounds",
            "1000",
            .. more,
        ];

    /// <summary>In a process of its own, whose words can be read.</summary>
    private RunningProcess Begin(string urls, string[] more) =>
        RunningProcess.Start(Built.Service, Words(urls, more), _folder, Built.LivesShort);

    private Task<RunningService> StartAsync(string urls, string[] more) =>
        RunningService.StartWithAsync(_folder, [.. Words(urls, more), "--Nailcrow:ReadsAhead", "false", .. NoSyslog]);

    // Those that share a process would all want the usual port.
    private static readonly string[] NoSyslog = ["--Nailcrow:Intake:SyslogPort", "0"];

    private async Task<Started> StartAloneAsync(string urls, string[] more)
    {
        var process = Begin(urls, more);
        var heard = await process.HearsAsync("Nailcrow listens at.*?(https?)://[0-9.]+:(\\d+)");
        return new(process, new Uri($"{heard.Groups[1].Value}://127.0.0.1:{heard.Groups[2].Value}"));
    }

    private static HttpClient Over(Uri service) =>
        new(new HttpClientHandler { ServerCertificateCustomValidationCallback = (_, _, _, _) => true }) { BaseAddress = service };

    private static async Task<NailcrowClient> SignInAsync(Uri service)
    {
        var client = new NailcrowClient(Over(service), TimeProvider.System);
        client.UseToken((await client.SignInAsync("admin", RunningService.Password, Ct)).AccessToken);
        return client;
    }

    /// <summary>A certificate of its own for a name, where the service looks for it.</summary>
    private void Renew(string name)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest($"CN={name}", key, HashAlgorithmName.SHA256);
        using var made = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(30));
        File.WriteAllText(Key, key.ExportECPrivateKeyPem());
        File.WriteAllText(Certificate, made.ExportCertificatePem());
    }

    private static async Task<string> ShownAsync(Uri at)
    {
        using var tcp = new TcpClient();
        await tcp.ConnectAsync(at.Host, at.Port, Ct);
        await using var tls = new SslStream(tcp.GetStream(), false, (_, _, _, _) => true);
        await tls.AuthenticateAsClientAsync("any");
        return tls.RemoteCertificate!.Subject;
    }
}
