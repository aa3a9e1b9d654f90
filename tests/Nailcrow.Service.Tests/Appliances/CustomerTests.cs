using System.Text;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Service.Tests.Appliances;

/// <summary>Customers as a list of their own: whom to ask, what was promised, what was agreed on data and spares.</summary>
public sealed class CustomerTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static readonly PersonToAsk Ansa = new("Ansa Hale", "getting in", "desk 12");

    private static async Task<(int Status, string Says)> RefusedAsync(Func<Task> what)
    {
        var no = await Should.ThrowAsync<ApiProblem>(what);
        return ((int)no.Status, no.Message);
    }

    [Fact]
    public async Task Whoever_owns_a_site_is_a_customer_and_what_is_written_down_of_them_stands_on_their_tickets()
    {
        var dorrik = await service.AsAsync("dorrik");
        var machine = await dorrik.ApplianceAsync("FSC-0203", Ct);
        var known = await dorrik.CustomerAsync(machine.Site.Customer, Ct);
        known.Sites.ShouldContain(machine.Site.Name);
        known.Machines.ShouldBeGreaterThan(0);

        var changed = known.Customer with
        {
            People = [Ansa],
            Data = DataAgreement.StaysWithThem,
            DataNote = null,
            Spares = "Two of 12 TB in the porter's safe.",
        };
        await dorrik.PutCustomerAsync(changed, known.Version, Ct);

        var ilka = await service.AsAsync("ilka");
        var ticket = await ilka.TicketAsync(await service.OpenAsync("FSC-0203"), Ct);
        ticket
            .Customer.Select(l => l.Says)
            .ShouldBe([
                "Ansa Hale, getting in: desk 12",
                "Drives with their data on them stay with them.",
                "Two of 12 TB in the porter's safe.",
            ]);
        ticket.Report.DataAgreed.ShouldBe(DataAgreement.StaysWithThem);
        (await ilka.BringAsync(ticket.Number, Ct)).Spares.ShouldBe("Two of 12 TB in the porter's safe.");
        (await ilka.ApplianceAsync("FSC-0203", Ct)).Customer.People.ShouldBe([Ansa]);
    }

    [Fact]
    public async Task Of_two_who_change_one_at_once_the_second_is_told_and_nothing_of_the_first_is_lost()
    {
        var (dorrik, lioth) = (await service.AsAsync("dorrik"), await service.AsAsync("lioth"));
        var seen = await dorrik.PutCustomerAsync(new("Brae and Sons"), null, Ct);
        await lioth.PutCustomerAsync(seen.Customer with { People = [Ansa] }, seen.Version, Ct);

        (await RefusedAsync(() => dorrik.PutCustomerAsync(seen.Customer with { RespondHours = 8 }, seen.Version, Ct))).ShouldBe(
            (412, "Brae and Sons was changed by somebody else, or is not known any more; read it again and repeat the change.")
        );
        (await RefusedAsync(() => dorrik.PutCustomerAsync(new("Brae and Sons"), null, Ct))).ShouldBe(
            (428, "Brae and Sons is a customer already. Send If-Match with the version you saw, so that nobody's change is lost.")
        );
        (await dorrik.CustomerAsync("Brae and Sons", Ct)).Customer.ShouldSatisfyAllConditions(
            c => c.People.ShouldBe([Ansa]),
            c => c.RespondHours.ShouldBeNull()
        );
    }

    [Fact]
    public async Task What_cannot_be_and_who_may_not_is_refused_with_what_would_be_taken()
    {
        var (ilka, dorrik) = (await service.AsAsync("ilka"), await service.AsAsync("dorrik"));

        (await RefusedAsync(() => ilka.PutCustomerAsync(new("Mine"), null, Ct))).Status.ShouldBe(403);
        (await RefusedAsync(() => ilka.CustomerAsync("Nobody & Co/1", Ct))).ShouldBe((404, "No customer is called 'Nobody & Co/1'."));
        (await RefusedAsync(() => dorrik.PutCustomerAsync(new(""), null, Ct))).ShouldBe((422, "A customer has a name."));
        (await RefusedAsync(() => dorrik.PutCustomerAsync(new("X", [Ansa with { Reach = "" }]), null, Ct))).Says.ShouldBe(
            "Say how Ansa Hale is reached: a number, a desk, an address."
        );
    }

    [Fact]
    public async Task A_name_may_have_anything_in_it_and_is_found_by_any_part()
    {
        var dorrik = await service.AsAsync("dorrik");
        await dorrik.PutCustomerAsync(new("Hull/Keel & 100 % Rigging"), null, Ct);

        (await dorrik.CustomerAsync("Hull/Keel & 100 % Rigging", Ct)).Machines.ShouldBe(0);
        (await dorrik.CustomersAsync(null, Ct, "100 %")).Customers.ShouldHaveSingleItem();
        (await dorrik.CustomersAsync(null, Ct, "1_0")).Customers.ShouldBeEmpty(); // what is typed has no wildcards
    }

    [Fact]
    public async Task A_list_of_them_goes_out_and_comes_in_again_with_all_that_is_known()
    {
        var dorrik = await service.AsAsync("dorrik");
        const string csv =
            "customer,people,respond-hours,restore-hours,data,data-note,spares,pictures-kept-months\n"
            + "Vane Trust,Ansa Hale | getting in | desk 12; Orm Vey | | orm@example.org,8,40,wiped-first,Contract 7,Two in the safe,24\n"
            + "Bare Trust,,,,,,,\n"
            + "Bad Trust,Ansa Hale,,,,,,\n"
            + "Worse Trust,,,,burnt,,,\n";

        var done = await dorrik.ImportAsync("customers", new MemoryStream(Encoding.UTF8.GetBytes(csv)), false, false, Ct);

        done.Problems.Select(p => p.Reason)
            .ShouldBe([
                "people: 'Ansa Hale' names nobody to ask; write NAME | ABOUT WHAT | HOW REACHED.",
                "'burnt' is not an agreement on data; accepted: ask-each-time, may-leave, wiped-first, stays-with-them, destroyed-there.",
            ]);
        var vane = (await dorrik.CustomerAsync("Vane Trust", Ct)).Customer;
        vane.People.ShouldBe([Ansa, new("Orm Vey", "", "orm@example.org")]);
        (vane.RespondHours, vane.Data, vane.DataNote, vane.Spares).ShouldBe((8, DataAgreement.WipedFirst, "Contract 7", "Two in the safe"));
        vane.PicturesKeptMonths.ShouldBe(24);
        using var into = new MemoryStream();
        await dorrik.ExportAsync("customers", into, Ct);
        into.Position = 0;
        var again = await dorrik.ImportAsync("customers", into, false, true, Ct);
        again.Bad.ShouldBe(0);
        (await dorrik.CustomerAsync("Vane Trust", Ct)).Customer.People.ShouldBe(vane.People);
    }

    [Fact]
    public async Task A_list_of_sites_makes_their_owners_known_and_forgets_nothing_of_those_who_are()
    {
        var dorrik = await service.AsAsync("dorrik");
        await dorrik.PutCustomerAsync(new("Old Friends", [Ansa], RespondHours: 6), null, Ct);
        const string csv =
            "site,customer,address,zone\nHill barn,Old Friends,Hill 1,Europe/Oslo\nMill barn,New Friends,Mill 1,Europe/Oslo\n";

        await dorrik.ImportAsync("sites", new MemoryStream(Encoding.UTF8.GetBytes(csv)), false, false, Ct);

        (await dorrik.CustomerAsync("Old Friends", Ct)).ShouldSatisfyAllConditions(
            c => c.Customer.People.ShouldBe([Ansa]),
            c => c.Sites.ShouldBe(["Hill barn"])
        );
        (await dorrik.CustomerAsync("New Friends", Ct)).Sites.ShouldBe(["Mill barn"]);
    }

    [Fact]
    public async Task A_site_without_a_promise_has_its_customers_from_the_next_fault_on()
    {
        var (dorrik, ilka) = (await service.AsAsync("dorrik"), await service.AsAsync("ilka"));
        var site = new Site("Promise barn", "Keeps Promises", "Barn 1", "Europe/Oslo", Hours: "24/7");
        var owner = new Customer("Keeps Promises", [Ansa], RespondHours: 6);
        await ilka.AddMachineAsync(new(new("FSC-PROM-1", "CH-PROM-1", "brackmere-b12", site.Name, "Hall"), site, owner), Ct);

        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-PROM-1", "It beeps"), Ct)).Ticket;
        (await ilka.TicketAsync(ticket, Ct)).Report.Promise.ShouldNotBeNull().RespondHours.ShouldBe(6);

        var known = await dorrik.CustomerAsync(owner.Name, Ct);
        await dorrik.PutCustomerAsync(known.Customer with { RespondHours = 2 }, known.Version, Ct);
        (await ilka.TicketAsync(ticket, Ct)).Report.Promise.ShouldNotBeNull().RespondHours.ShouldBe(6); // as it was when the fault arrived
    }

    [Fact]
    public async Task What_is_agreed_on_data_while_a_ticket_is_open_holds_for_the_drive_that_came_out_of_it()
    {
        var (dorrik, ilka) = (await service.AsAsync("dorrik"), await service.AsAsync("ilka"));
        var site = new Site("Data barn", "Changes Minds", "Barn 3", "Europe/Oslo");
        var owner = new Customer("Changes Minds", Data: DataAgreement.MayLeave);
        await ilka.AddMachineAsync(new(new("FSC-DATA-1", "CH-DATA-1", "brackmere-b12", site.Name, "Hall"), site, owner), Ct);
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-DATA-1", "It beeps", Bay: "3"), Ct)).Ticket;
        await service.WriteAsync("ilka", ticket, new DrivePulled("3", "OLDDATA0001"));
        var known = await dorrik.CustomerAsync(owner.Name, Ct);
        await dorrik.PutCustomerAsync(known.Customer with { Data = DataAgreement.StaysWithThem }, known.Version, Ct);

        var back = new ReturnOpened("OLDDATA0001", ReturnReason.BackToStores, new(HolderKind.Depot, "Stores"));
        (await service.RefusedAsync("ilka", ticket, back)).Sentence.ShouldBe(
            "Changes Minds's data is on this drive, and it was agreed that such drives stay with them. Hand it over, "
                + "and record who took it; or write down who there agreed that this one leaves all the same."
        );
        var opened = await service.WriteAsync("ilka", ticket, back with { DataAgreedBy = "Their records officer" });
        (await ilka.TicketAsync(ticket, Ct)).Returns.ShouldHaveSingleItem().Serial.ShouldBe("OLDDATA0001");
        (await service.RefusedAsync("ilka", ticket, new EntryCorrected(opened.Id, "Nobody there said so.", back))).Sentence.ShouldContain(
            "it was agreed that such drives stay with them"
        );
    }

    [Fact]
    public async Task A_return_that_was_not_so_is_not_so_again_where_the_data_stays_by_now()
    {
        var (dorrik, ilka) = (await service.AsAsync("dorrik"), await service.AsAsync("ilka"));
        var site = new Site("Moved barn", "Changes Minds Twice", "Barn 4", "Europe/Oslo");
        var owner = new Customer("Changes Minds Twice", Data: DataAgreement.MayLeave);
        await ilka.AddMachineAsync(new(new("FSC-DATA-2", "CH-DATA-2", "brackmere-b12", site.Name, "Hall"), site, owner), Ct);
        var ticket = (await ilka.ReportAsync(new FaultAsk("FSC-DATA-2", "It beeps", Bay: "3"), Ct)).Ticket;
        await service.WriteAsync("ilka", ticket, new DrivePulled("3", "OLDDATA0002"));
        var back = new ReturnOpened("OLDDATA0002", ReturnReason.BackToStores, new(HolderKind.Depot, "Stores"));
        var opened = await service.WriteAsync("ilka", ticket, back);
        var notSo = await service.WriteAsync("ilka", ticket, new EntryCorrected(opened.Id, "Not yet."));
        var known = await dorrik.CustomerAsync(owner.Name, Ct);
        await dorrik.PutCustomerAsync(known.Customer with { Data = DataAgreement.DestroyedThere }, known.Version, Ct);

        (await service.RefusedAsync("ilka", ticket, new EntryCorrected(notSo.Id, "It was so."))).Sentence.ShouldContain(
            "it was agreed that such drives are destroyed there"
        );
        (await ilka.TicketAsync(ticket, Ct)).Returns.ShouldBeEmpty();
    }

    [Fact]
    public async Task Who_is_known_is_not_described_anew_by_the_way()
    {
        var (dorrik, ilka) = (await service.AsAsync("dorrik"), await service.AsAsync("ilka"));
        await dorrik.PutCustomerAsync(new("Known Already", [Ansa]), null, Ct);
        var site = new Site("Known barn", "Known Already", "Barn 2", "Europe/Oslo");
        var machine = new Appliance("FSC-KNOWN-1", "CH-KNOWN-1", "brackmere-b12", site.Name, "Hall");

        (await RefusedAsync(() => ilka.AddMachineAsync(new(machine, site, new("Known Already", Spares: "None")), Ct))).ShouldBe(
            (409, "There is a customer 'Known Already' already; name them without describing them anew.")
        );
        (await RefusedAsync(() => ilka.AddMachineAsync(new(machine, site, new("Somebody Else")), Ct))).Says.ShouldBe(
            "The site is one of 'Known Already', and the new customer is 'Somebody Else'."
        );
        await ilka.AddMachineAsync(new(machine, site), Ct);
        (await dorrik.CustomerAsync("Known Already", Ct)).ShouldSatisfyAllConditions(
            c => c.Customer.People.ShouldBe([Ansa]),
            c => c.Machines.ShouldBe(1)
        );
    }
}
