using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Core.Tests.Appliances;

public class CustomerTests
{
    private static readonly PersonToAsk Ansa = new("Ansa Hale", "getting in", "desk 12");
    private static readonly Customer Trust = new("Orrin Trust", [Ansa], RespondHours: 8, RestoreHours: 40);
    private static readonly Site Shelf = new("Orrin Shelf", "Orrin Trust", "Shelf 1", "Europe/Oslo", Hours: "Mo-Fr 08:00-16:00");

    [Fact]
    public void A_site_keeps_its_own_promise_and_has_its_customers_where_it_has_none()
    {
        Promise
            .Of(Shelf, Trust)
            .ShouldNotBeNull()
            .ShouldSatisfyAllConditions(
                p => (p.RespondHours, p.RestoreHours).ShouldBe((8, 40)),
                p => p.Hours.ShouldBe("Mo-Fr 08:00-16:00") // in the site's own hours
            );
        Promise
            .Of(Shelf with { RespondHours = 4 }, Trust)
            .ShouldNotBeNull()
            .ShouldSatisfyAllConditions(p => (p.RespondHours, p.RestoreHours).ShouldBe((4, 40)));
        Promise.Of(Shelf, new Customer("Orrin Trust")).ShouldBeNull();
    }

    [Fact]
    public void Whoever_works_there_reads_whom_to_ask_and_what_was_agreed() =>
        (Trust with { Data = DataAgreement.StaysWithThem, DataNote = "Contract 7, page 2.", Spares = "Two of 8 TB in the porter's safe." })
            .Lines()
            .Select(l => $"{l.About}: {l.Says}")
            .ShouldBe([
                "Ask: Ansa Hale, getting in: desk 12",
                "Data: Drives with their data on them stay with them. Contract 7, page 2.",
                "Spares: Two of 8 TB in the porter's safe.",
            ]);

    [Fact]
    public void Where_nothing_was_agreed_on_data_they_are_asked() =>
        new Customer("Orrin Trust")
            .Lines()
            .ShouldHaveSingleItem()
            .Says.ShouldBe("Nothing is agreed on drives with their data on them: ask, for each.");

    public static TheoryData<Customer, string> Impossible() =>
        new()
        {
            { new(" "), "A customer has a name." },
            { new(new string('n', 201)), "That name has 201 characters; at most 200 are taken." },
            { Trust with { RespondHours = 0 }, "A promise of an engineer within 0 hours is none; 1 to 8760 are taken." },
            { Trust with { RestoreHours = 8_761 }, "A promise of redundancy within 8761 hours is none; 1 to 8760 are taken." },
            {
                Trust with
                {
                    PicturesKeptMonths = 0,
                },
                "Pictures cannot be kept for 0 months after a ticket ends; 1 to 600 are taken, and none where they stay as long as the record."
            },
            { Trust with { People = [new("", "x", "y")] }, "Somebody to ask has a name." },
            { Trust with { People = [new("Orm", "x", " ")] }, "Say how Orm is reached: a number, a desk, an address." },
            {
                Trust with
                {
                    People = [new("Orm", "x;y", "1")],
                },
                "'Orm' has a ; or a | in its line; those stand between two of them in a list."
            },
            {
                Trust with
                {
                    People = [Ansa, Ansa with { Name = "ansa hale" }],
                },
                "Ansa Hale is there twice; one line says all that they are asked about."
            },
            {
                Trust with
                {
                    People = [.. Enumerable.Range(0, 51).Select(n => new PersonToAsk($"{n}", "", "desk"))],
                },
                "Orrin Trust has 51 people to ask; at most 50 are kept."
            },
        };

    [Theory, MemberData(nameof(Impossible))]
    public void What_cannot_be_is_told_with_what_could(Customer customer, string sentence) => customer.Problem().ShouldBe(sentence);
}
