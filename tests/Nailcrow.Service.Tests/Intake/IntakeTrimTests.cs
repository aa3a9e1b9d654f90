using System.Net.Sockets;
using System.Text;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Intake;

/// <summary>What came in is kept as long as somebody may need it, and no longer.</summary>
public sealed class IntakeTrimTests
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_came_in_goes_after_so_many_months_and_what_waits_for_somebody_stays()
    {
        await using var service = await RunningService.StartPeopledAsync(
            givenTime: true,
            further: ["--Nailcrow:Intake:KeepMonths", "2", "--Nailcrow:Intake:TrimEverySeconds", "0.2"]
        );
        await SaysAsync(service, "tollardt5-06", "drive in bay 3 went offline");
        await SaysAsync(service, "tollardt5-06", "humming to itself");
        await SaysAsync(service, "nobody-knows-me", "drive in bay 3 went offline");
        await Soon.IsAsync(async () => await CountAsync(service) == 3 && await CountAsync(service, "pending") == 0, Ct);
        var ticket = (await (await service.SignInAsync("dorrik")).TicketsAsync(new(Asset: "FSC-0406"), Ct)).Tickets.Single().Number;

        await service.PassesAsync(TimeSpan.FromDays(50));
        await SaysAsync(service, "tollardt5-06", "humming once more");
        await Soon.IsAsync(async () => await CountAsync(service) == 4, Ct);
        await service.PassesAsync(TimeSpan.FromDays(20));

        await Soon.IsAsync(async () => await CountAsync(service) == 2, Ct);
        (await CountAsync(service, "unknown-sender")).ShouldBe(1);
        (await CountAsync(service, "unmatched")).ShouldBe(1);
        (await (await service.SignInAsync("dorrik")).TicketAsync(ticket, Ct)).Report.Symptom.ShouldBe("drive in bay 3 went offline");
    }

    /// <summary>As anybody sees them under Intake, of one outcome or of all.</summary>
    private static async Task<int> CountAsync(RunningService service, string? outcome = null)
    {
        var dorrik = await service.SignInAsync("dorrik");
        string[] all = outcome is null ? ["pending", "joined", "ignored", "repeated", "unmatched", "unknown-sender", "settled"] : [outcome];
        var count = 0;
        foreach (var one in all)
            count += (await dorrik.IntakeAsync(one, Ct)).Items.Count;
        return count;
    }

    private static async Task SaysAsync(RunningService service, string host, string text)
    {
        using var tcp = new TcpClient();
        await tcp.ConnectAsync("127.0.0.1", await service.SyslogPortAsync(), Ct);
        await tcp.GetStream().WriteAsync(Encoding.UTF8.GetBytes($"<131>1 - {host} storage - - - {text}\n"), Ct);
    }
}
