using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A drive is taken out of one machine and used in another: wiped in between, and its life is one line.</summary>
[Collection(Stories.Name)]
public sealed class Row41MovedToAnotherMachine(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task It_is_refused_until_it_is_wiped_at_the_shelf_and_one_line_tells_both_machines()
    {
        var first = await new Story(firm).OnSiteAsync();
        first.Machine["2"] = first.Machine["2"] with { Health = Core.Appliances.DriveHealth.Good };
        var moved = first.Machine.Serial("2");
        await first.StartAsync();
        await first.ClosesAsync();
        var sefa = await first.AsAsync("sefa");
        (await sefa.StoresAsync(null, Ct)).ToWipe.ShouldContain(p => p.Serial == moved && p.UnwipedFrom == first.Asset);
        var second = await new Story(firm).OnSiteAsync(bay: "4", parts: 0);
        var reserved = new PartReserved(moved, "Cindral C8", 8_000_000_000_000, "Stores");
        (await second.RefusedAsync("sefa", reserved)).Sentence.ShouldContain("no wipe is on record");

        (await sefa.WipeAsync(new(Guid.CreateVersion7(), moved, "Sanitize command"), Ct)).Now!.UnwipedFrom.ShouldBeNull();
        second.ComesToToday();
        await first.StartsAnewAsync();
        await second.DoesAsync("sefa", reserved);
        await second.DoesAsync("sefa", new PartIssued(moved, "ilka"));
        await second.StartAsync();
        await second.ClosesAsync();

        var line = await (await second.AsAsync("sefa")).PartAsync(moved, Ct);
        line.Movements.Where(m => m.To is not null)
            .Select(m => $"{m.To!.Kind} {m.Asset}".Trim())
            .ShouldBe([$"Engineer {first.Asset}", "Carrier", "Depot", "Depot", "Engineer", $"Bay {second.Asset}"]);
        line.Now!.Holder.ShouldBe(new Holder(HolderKind.Bay, $"4 of {second.Asset}"));
    }

    [Theory, InlineData(Core.Appliances.DriveHealth.Faulted), InlineData(Core.Appliances.DriveHealth.Worn)]
    public async Task One_that_came_out_as_bad_is_offered_to_nobody_and_taken_only_by_who_says_why(Core.Appliances.DriveHealth health)
    {
        var first = await new Story(firm).OnSiteAsync();
        first.Machine["2"] = first.Machine["2"] with { Health = health };
        var failed = first.Machine.Serial("2");
        await first.StartAsync();
        await first.ClosesAsync();
        var sefa = await first.AsAsync("sefa");
        (await sefa.StoresAsync(null, Ct)).ToWipe.ShouldContain(p => p.Serial == failed);
        await sefa.WipeAsync(new(Guid.CreateVersion7(), failed, "Overwritten once"), Ct);
        await first.StartsAnewAsync();
        var second = await new Story(firm).OnSiteAsync(bay: "4", parts: 0);
        second.ComesToToday();
        var reserved = new PartReserved(failed, "Cindral C8", 8_000_000_000_000, "Stores");

        (await (await first.AsAsync("sefa")).BringAsync(second.Ticket, Ct)).Parts.ShouldNotContain(p => p.Part.Serial == failed);
        (await (await first.AsAsync("sefa")).StoresAsync(null, Ct)).Apart.ShouldContain(p => p.Serial == failed);
        (await second.RefusedAsync("sefa", reserved)).Sentence.ShouldContain($"{first.Asset} called it faulty or worn");
        await second.DoesAsync("sefa", reserved with { OverruledBecause = "Tested for two days, no errors." });
        (await second.ViewAsync()).Part!.Serial.ShouldBe(failed);
    }
}
