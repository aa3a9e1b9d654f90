using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests;

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
    }

    [Theory]
    [InlineData("--Nailcrow:WatchEverySeconds", "0", "Nailcrow:WatchEverySeconds is 0; accepted: 1 to 3600.")]
    [InlineData(
        "--Nailcrow:Seen:Otlp",
        "collector:4318",
        "Nailcrow:Seen:Otlp is 'collector:4318'; accepted: an address such as http://collector.firm.example:4318."
    )]
    [InlineData("--Nailcrow:Seen:EverySeconds", "0", "Nailcrow:Seen:EverySeconds is 0; accepted: 1 to 3600.")]
    [InlineData("--Nailcrow:Seen:GoingDownSeconds", "9", "Nailcrow:Seen:GoingDownSeconds is 9; accepted: 0 to 2.")]
    [InlineData("--Nailcrow:PicturesEverySeconds", "0", "Nailcrow:PicturesEverySeconds is 0; accepted: 0.2 to 86400.")]
    [InlineData("--Nailcrow:Procedures", "/no/such/folder", "Nailcrow:Procedures is '/no/such/folder', which is no folder.")]
    public async Task Settings_that_cannot_work_are_told_at_the_start(string name, string value, string sentence)
    {
        await using var process = RunningProcess.Start(
            Built.Service,
            ["--urls", "http://127.0.0.1:0", "--Nailcrow:Data", Path.GetTempFileName(), name, value]
        );

        await process.HearsAsync(System.Text.RegularExpressions.Regex.Escape(sentence));
    }

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
