using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Linking;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A good drive that came free on one ticket goes into another machine: the second waits for the first, and the drive is wiped.</summary>
[Collection(Stories.Name)]
public sealed class Row50TheFreedDriveIsTheNextPart(TheFirm firm)
{
    [Fact]
    public async Task It_is_wiped_and_handed_on_and_one_line_tells_where_it_has_been()
    {
        var first = await new Story(firm).OnSiteAsync();
        first.Machine["2"] = first.Machine["2"] with { Health = Core.Appliances.DriveHealth.Good };
        var freed = first.Machine.Serial("2");
        await first.StartAsync();
        var second = await new Story(firm).OnSiteAsync(bay: "4", parts: 0);
        await second.DoesAsync("dorrik", new TicketLinked(first.Ticket, LinkKind.After));
        await first.StartsAnewAsync();
        await first.ClosesAsync();
        var reserved = new PartReserved(freed, "Cindral C8", 8_000_000_000_000, "Stores");
        (await second.RefusedAsync("sefa", reserved)).Sentence.ShouldContain("no wipe is on record");

        await second.DoesAsync("sefa", new DriveWiped(freed, "Written over, array marks and system areas too"));
        await second.DoesAsync("sefa", reserved);
        await second.DoesAsync("sefa", new PartIssued(freed, "ilka"));
        await second.StartAsync();
        var closed = await second.ClosesAsync();

        closed.Swap.InSerial.ShouldBe(freed);
        var life = await (await second.AsAsync("sefa")).DriveAsync(freed, TestContext.Current.CancellationToken);
        life.Events.Select(e => e.Ticket).Distinct().ShouldBe([first.Ticket, second.Ticket]);
        closed.Discrepancies.ShouldBeEmpty();
    }
}
