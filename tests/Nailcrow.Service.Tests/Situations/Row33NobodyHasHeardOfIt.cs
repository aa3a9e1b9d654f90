using Nailcrow.Client;
using Nailcrow.Client.Appliances;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A machine, a site and a customer nobody has heard of: the fault is kept at once, the machine added on the spot.</summary>
[Collection(Stories.Name)]
public sealed class Row33NobodyHasHeardOfIt(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_was_said_is_kept_and_becomes_a_ticket_once_somebody_has_read_the_plate()
    {
        var ilka = await firm.AsAsync("ilka");
        var said = new FaultAsk("FSC-NEW-1", "Amber lamp, it beeps", Bay: "3", Serial: "OLDNEW1", Id: Guid.CreateVersion7());
        (await Should.ThrowAsync<ApiProblem>(() => ilka.ReportAsync(said, Ct))).Message.ShouldContain("is kept in the intake list");
        await Should.ThrowAsync<ApiProblem>(() => ilka.ReportAsync(said, Ct)); // sent twice is said once

        await firm.StartsAnewAsync();
        ilka = await firm.AsAsync("ilka");
        var kept = (await ilka.IntakeAsync(null, Ct)).Items.Where(i => i.Asset == "FSC-NEW-1").ShouldHaveSingleItem();
        kept.Text.ShouldBe("FSC-NEW-1: Amber lamp, it beeps, bay 3, OLDNEW1");

        var machine = new Appliance("FSC-NEW-1", "CH-NEW-1", "brackmere-b12", "Salt cellar", "Cellar, by the stairs");
        var site = new Site("Salt cellar", "Ferrow Glassworks", "2 Kiln Road", "Europe/Oslo");
        (await Should.ThrowAsync<ApiProblem>(() => ilka.AddMachineAsync(new(machine), Ct))).Message.ShouldContain("which is no site here");
        var added = await ilka.AddMachineAsync(new(machine, site), Ct);
        (added.Machine.Site.Customer, added.Waiting).ShouldBe(("Ferrow Glassworks", 1));

        var receipt = (await ilka.SettleIntakeAsync(kept.Id, new("FSC-NEW-1"), Ct)).ShouldNotBeNull();
        var ticket = await ilka.TicketAsync(receipt.Ticket, Ct);
        (ticket.Report.Bay, ticket.Report.Serial, ticket.Report.Customer).ShouldBe(("3", "OLDNEW1", "Ferrow Glassworks"));
        (await ilka.ReportAsync(said, Ct)).Ticket.ShouldBe(receipt.Ticket); // the same press, answered at last
    }

    [Theory]
    [InlineData("", "CH-1", "brackmere-b12", "has an asset number")]
    [InlineData("FSC NEW", "CH-1", "brackmere-b12", "is no asset number")]
    [InlineData("FSC-NEW-2", "", "brackmere-b12", "from the sticker of its chassis")]
    [InlineData("FSC-NEW-2", "CH-1", "brackmere-b99", "which is not known; known:")]
    public async Task What_the_plate_cannot_say_is_refused_with_what_it_should_say(string asset, string serial, string model, string says)
    {
        var ilka = await firm.AsAsync("ilka");
        var site = (await ilka.SitesAsync(Ct)).Sites[0];

        var no = await Should.ThrowAsync<ApiProblem>(() => ilka.AddMachineAsync(new(new(asset, serial, model, site.Name, "Hall")), Ct));

        no.Message.ShouldContain(says);
    }

    [Fact]
    public async Task What_is_known_is_not_added_again_and_not_everybody_changes_it()
    {
        var (ilka, sefa) = (await firm.AsAsync("ilka"), await firm.AsAsync("sefa"));
        var known = (await ilka.AppliancesAsync(null, Ct)).Appliances[0];

        ((int)(await Should.ThrowAsync<ApiProblem>(() => ilka.AddMachineAsync(new(known.Appliance), Ct))).Status).ShouldBe(409);
        ((int)(await Should.ThrowAsync<ApiProblem>(() => sefa.AddMachineAsync(new(known.Appliance), Ct))).Status).ShouldBe(403);
        var moved = known.Appliance with { Location = "Elsewhere" };
        ((int)(await Should.ThrowAsync<ApiProblem>(() => ilka.ReplaceMachineAsync(moved, known.Version, Ct))).Status).ShouldBe(403);
    }
}
