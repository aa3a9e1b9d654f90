using System.Globalization;
using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Host;

public sealed class HostTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task The_interfaces_description_is_the_one_that_is_checked_in()
    {
        using var http = service.Service.Http();
        var served = JsonNode.Parse(await http.GetStringAsync("api/openapi.json", Ct))!;
        var checkedIn = JsonNode.Parse(await File.ReadAllTextAsync(Path.Combine(Built.Root, "docs", "openapi.json"), Ct))!;

        JsonNode
            .DeepEquals(served, checkedIn)
            .ShouldBeTrue("docs/openapi.json is not what the service says of itself; tools/update-openapi.sh writes it.");
        served["openapi"]!.GetValue<string>().ShouldStartWith("3.1");
    }

    [Theory, InlineData("health/live"), InlineData("health/ready")]
    public async Task Health_is_told_to_anybody_who_asks(string path)
    {
        using var http = service.Service.Http();

        (await http.GetAsync(path, Ct)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task It_listens_on_loopback_says_so_and_logs_in_lines_a_program_can_read()
    {
        await using var alone = await RunningService.StartPeopledAsync(alone: true);
        var lines = alone.Process.Said.Split('\n').Where(l => l.Length > 0).ToList();

        lines.ShouldAllBe(l => JsonDocument.Parse(l, default).RootElement.ValueKind == JsonValueKind.Object);
        lines.ShouldContain(l => l.Contains("Nailcrow listens at") && l.Contains("http://127.0.0.1:"));
        FilesWatchedBy(alone.Process.Id).ShouldBeEmpty(); // whatever lies beneath the folder that it was started in
    }

    [Fact]
    public async Task One_that_has_worked_and_rests_gives_back_what_only_the_work_took_and_answers_as_before()
    {
        string[] asksNobody = ["--Nailcrow:Outside:RemindEverySeconds", "60", "--Nailcrow:Outside:AskEverySeconds", "60"];
        await using var alone = await RunningService.StartPeopledAsync(
            alone: true,
            further: [.. asksNobody, "--Nailcrow:RestsAfterSeconds", "3"]
        );
        using var http = alone.Http();
        var worked = FileKilobytes(alone.Process.Id);

        await Soon.IsAsync(() => Task.FromResult(FileKilobytes(alone.Process.Id) < worked * 0.7), Ct);
        (await http.GetAsync("health/ready", Ct)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await http.GetStringAsync("api/openapi.json", Ct)).ShouldContain("\"openapi\"");
    }

    // Pages of program files that are resident, as the kernel counts them.
    private static int FileKilobytes(int process) =>
        int.Parse(
            File.ReadLines($"/proc/{process}/status").Single(l => l.StartsWith("RssFile:", StringComparison.Ordinal)).Split(' ')[^2],
            CultureInfo.InvariantCulture
        );

    private static IEnumerable<string> FilesWatchedBy(int process) =>
        Directory
            .GetFiles($"/proc/{process}/fdinfo")
            .SelectMany(ReadWhereItIsStill)
            .Where(line => line.StartsWith("inotify wd:", StringComparison.Ordinal));

    private static string[] ReadWhereItIsStill(string file)
    {
        try
        {
            return File.ReadAllLines(file);
        }
        catch (IOException)
        {
            return []; // closed meanwhile
        }
    }

    [Fact]
    public async Task All_settings_that_are_none_or_cannot_be_read_are_told_at_once_with_what_would_be()
    {
        var (code, said) = await ServiceCommand.RunAsync(
            Ct,
            "--Nailcrow:SealEveryHours=daily",
            "--Nailcrow:WatchEverySeconds=NaN",
            "--Nailcrow:PasswordRounds=1.5",
            "--Nailcrow:PlainHttp=perhaps",
            "--Nailcrow:SecondFactors:0=admin",
            "--Nailcrow:SecondFactor=admin",
            "--Nailcrow:Data:File=nailcrow.db",
            "--Nailcrow:Tls:Certificate=service.pem",
            "--Nailcrow:Tls:Keys=service.key",
            "--Nailcrow:Elsewhere=https://sign-in.firm.example",
            "--Nailcrow:Elsewhere:Roles=admin"
        );

        said.TrimEnd()
            .Split('\n')
            .Order(StringComparer.Ordinal)
            .ShouldBe([
                "Nailcrow:Data is one value and has no parts; Nailcrow:Data:File is no setting.",
                "Nailcrow:Elsewhere is no value and has parts: Nailcrow:Elsewhere:Issuer, Nailcrow:Elsewhere:ClientId, "
                    + "Nailcrow:Elsewhere:SecretFile, Nailcrow:Elsewhere:Name, Nailcrow:Elsewhere:RolesClaim, Nailcrow:Elsewhere:Roles, "
                    + "Nailcrow:Elsewhere:Scopes, Nailcrow:Elsewhere:AnswerWithinSeconds.",
                "Nailcrow:PasswordRounds is '1.5'; accepted: a whole number.",
                "Nailcrow:PlainHttp is 'perhaps'; accepted: true or false.",
                "Nailcrow:SealEveryHours is 'daily'; accepted: a number, such as 2.5.",
                "Nailcrow:SecondFactor is a list, and each has its number: Nailcrow:SecondFactor:0=...",
                "Nailcrow:SecondFactors is no setting. Did you mean 'SecondFactor'? docs/settings.md lists them.",
                "Nailcrow:Tls:Key is not given, and what else stands in Nailcrow:Tls is nothing without it.",
                "Nailcrow:Tls:Keys is no setting. Did you mean 'Key'? docs/settings.md lists them.",
                "Nailcrow:WatchEverySeconds is 'NaN'; accepted: a number, such as 2.5.",
            ]);
        code.ShouldBe(1);
    }

    [Fact]
    public async Task All_settings_that_cannot_work_are_told_at_once_and_nothing_is_made()
    {
        var nowhere = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():N}");
        var (code, said) = await ServiceCommand.RunAsync(
            Ct,
            $"--Nailcrow:Data={nowhere}/nailcrow.db",
            $"--Nailcrow:Procedures={nowhere}/procedures",
            "--Nailcrow:WatchEverySeconds=0",
            "--Nailcrow:PicturesEverySeconds=0",
            "--Nailcrow:Seen:Otlp=collector:4318",
            "--Nailcrow:Seen:EverySeconds=0",
            "--Nailcrow:Seen:GoingDownSeconds=9"
        );

        said.TrimEnd()
            .Split('\n')
            .ShouldBe([
                "Nailcrow:WatchEverySeconds is 0; accepted: 1 to 3600.",
                "Nailcrow:PicturesEverySeconds is 0; accepted: 0.2 to 86400.",
                "Nailcrow:Seen:Otlp is 'collector:4318'; accepted: an address such as http://collector.firm.example:4318.",
                "Nailcrow:Seen:EverySeconds is 0; accepted: 1 to 3600.",
                "Nailcrow:Seen:GoingDownSeconds is 9; accepted: 0 to 2.",
                $"Nailcrow:Procedures is '{nowhere}/procedures', which is no folder.",
                $"Nailcrow:Data is in '{nowhere}', which is no folder.",
            ]);
        code.ShouldBe(1);
        Directory.Exists(nowhere).ShouldBeFalse();
    }

    [Theory]
    [InlineData(
        "Link:AllowedNetworks:0=everywhere",
        "Nailcrow:Link:AllowedNetworks has 'everywhere'; accepted: a network such as 10.0.0.0/8."
    )]
    [InlineData(
        "Intake:SyslogPorts=5514",
        "Nailcrow:Intake:SyslogPorts is no setting. Did you mean 'SyslogPort'? docs/settings.md lists them."
    )]
    [InlineData(
        "Link=10.0.0.0/8",
        "Nailcrow:Link is no value and has parts: Nailcrow:Link:CallDeadline, Nailcrow:Link:LookDeadline, "
            + "Nailcrow:Link:MostBytes, Nailcrow:Link:SecretFiles, Nailcrow:Link:AllowedNetworks."
    )]
    [InlineData("Outside:Tries=0", "Nailcrow:Outside:Tries is 0; accepted: 1 to 1000.")]
    public async Task A_setting_of_one_room_that_cannot_be_meant_is_told_as_well(string setting, string sentence)
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-");
        var (code, said) = await ServiceCommand.RunAsync(
            Ct,
            $"--Nailcrow:Data={folder.FullName}/nailcrow.db",
            $"--Nailcrow:Procedures={Path.Combine(Built.Root, "procedures")}",
            $"--Nailcrow:{setting}"
        );

        (code, said.TrimEnd()).ShouldBe((1, sentence));
    }

    [Theory]
    [InlineData(
        "admitt ilka",
        2,
        "'admitt' is nothing that nailcrow-service does. Did you mean 'admit'? Without a word it serves; 'nailcrow-service help' tells the rest."
    )]
    [InlineData("admit ilka --please", 2, "'--please' is nothing that is taken: nailcrow-service admit NAME [--Nailcrow:Data=PLACE].")]
    [InlineData(
        "admit ilka --Nailcrow:Data",
        2,
        "'--Nailcrow:Data' is nothing that is taken: nailcrow-service admit NAME [--Nailcrow:Data=PLACE]."
    )]
    [InlineData("admit ilka --Nailcrow:Dta=x", 1, "Nailcrow:Dta is no setting. Did you mean 'Data'? docs/settings.md lists them.")]
    [InlineData(
        "restore backup.db --Nailcrow:Data=",
        1,
        "Nailcrow:Data is empty; accepted: a file, such as /var/lib/nailcrow/nailcrow.db."
    )]
    public async Task A_word_on_the_machine_that_means_nothing_is_told_with_what_would(string words, int code, string sentence) =>
        (await ServiceCommand.RunAsync(Ct, words.Split(' '))).ShouldBe((code, $"{sentence}{Environment.NewLine}"));

    [Fact]
    public async Task A_port_that_another_program_has_is_told_in_one_line_at_the_start()
    {
        var taken = service.Service.Address.ToString().TrimEnd('/');
        await using var process = RunningProcess.Start(
            Built.Service,
            ["--urls", taken, "--Nailcrow:Data", Path.GetTempFileName(), "--Nailcrow:Procedures", Path.Combine(Built.Root, "procedures")]
        );

        await process.HearsAsync(
            System.Text.RegularExpressions.Regex.Escape($"Failed to bind to address {taken}: address already in use.")
        );
        process.Said.ShouldNotContain("Unhandled exception");
    }
}
