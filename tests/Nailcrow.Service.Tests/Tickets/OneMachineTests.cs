using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;

namespace Nailcrow.Service.Tests.Tickets;

/// <summary>Two tickets of one machine: what one of them sees, the other goes by, and says so.</summary>
public sealed class OneMachineTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task The_newest_look_at_a_machine_counts_on_each_of_its_open_tickets()
    {
        var (tamsel, first, second) = await TwoAsync("FSC-0311");
        await service.WriteAsync("ilka", second, new SnapshotTaken(Vault("FSC-0311", failed: 1)));
        (await tamsel.TicketAsync(first, Ct)).Danger.Margin.ShouldBe(1);

        var look = await service.WriteAsync("ilka", second, new SnapshotTaken(Vault("FSC-0311", failed: 2)));

        var danger = (await tamsel.TicketAsync(first, Ct)).Danger;
        danger.Margin.ShouldBe(0);
        danger.Seen!.By.ShouldBe("ilka");
        danger.Seen.On.ShouldBe(second);
        (await tamsel.TicketAsync(second, Ct)).Danger.Seen!.On.ShouldBeNull();
        (await LineAsync(tamsel, first)).ShouldBe(0);
        look.Raised.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_new_ticket_knows_what_another_open_one_of_its_machine_saw_and_a_closed_one_hears_no_more()
    {
        var (tamsel, first, _) = await TwoAsync("FSC-0402");
        await service.WriteAsync("ilka", first, new SnapshotTaken(Vault("FSC-0402", failed: 2)));
        await service.WriteAsync("dorrik", first, new TicketCancelled("Entered twice"));

        var third = (await tamsel.ReportAsync(new FaultAsk("FSC-0402", "Beeps", Bay: "6"), Ct)).Ticket;
        (await tamsel.TicketAsync(third, Ct)).Danger.Margin.ShouldBe(0);
        await service.WriteAsync("tamsel", third, new SnapshotTaken(Vault("FSC-0402", failed: 0)));

        (await tamsel.TicketAsync(first, Ct)).Danger.Margin.ShouldBe(0);
        (await tamsel.TicketAsync(third, Ct)).Danger.Margin.ShouldBe(2);
    }

    [Fact]
    public async Task Nobody_words_what_was_seen_on_another_ticket_but_the_service()
    {
        var (_, first, second) = await TwoAsync("FSC-0203");

        (await service.RefusedAsync("ilka", first, new MachineSeen(Vault("FSC-0203", failed: 0), second, "ilka"))).Status.ShouldBe(403);
    }

    private async Task<(NailcrowClient Tamsel, long First, long Second)> TwoAsync(string asset)
    {
        var tamsel = await service.AsAsync("tamsel");
        return (
            tamsel,
            (await tamsel.ReportAsync(new FaultAsk(asset, "Amber lamp", Bay: "1"), Ct)).Ticket,
            (await tamsel.ReportAsync(new FaultAsk(asset, "Amber lamp", Bay: "2"), Ct)).Ticket
        );
    }

    private static async Task<int?> LineAsync(NailcrowClient by, long ticket) =>
        (await by.TicketsAsync(new TicketSearch(Find: $"{ticket}"), Ct)).Tickets.Single(t => t.Number == ticket).Margin;

    /// <summary>Six bays with one double-parity array in all of them, of which some have failed.</summary>
    private static Snapshot Vault(string asset, int failed) =>
        new(
            DateTimeOffset.UtcNow,
            SeenByPerson.Source,
            [
                .. Enumerable
                    .Range(1, 6)
                    .Select(i => new Bay(
                        $"{i}",
                        BayRole.Member,
                        i <= failed ? DriveHealth.Faulted : DriveHealth.Good,
                        Serial: $"{asset[4..]}D{i}",
                        Array: "vault"
                    )),
            ],
            [new("vault", ArrayLevel.Raid6, 6, failed == 0 ? ArrayState.Whole : ArrayState.Degraded)]
        );
}
