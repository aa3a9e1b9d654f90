using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Core.Tests.Returns;

public class CustodyTests
{
    private static ReturnOpened Exchange(string? number = "RX-1", string? agreed = "Archivist") =>
        new(Some.Bad, ReturnReason.ExchangeUnderWarranty, new(HolderKind.Maker, "Pellworth"), number, new DateOnly(2026, 4, 1), agreed);

    [Fact]
    public void Every_drive_that_moved_has_a_holder_and_only_some_may_keep_it()
    {
        var custody = Played.At("end").Ticket.Custody;

        custody.HolderOf(Some.New).ShouldBe(new Holder(HolderKind.Bay, "2"));
        custody.Open.ShouldBe([(Some.Bad, new Holder(HolderKind.Engineer, "ilka"))]);
    }

    [Fact]
    public void A_drive_with_data_on_it_leaves_only_when_somebody_agreed() =>
        Played
            .At("end")
            .Refusal(Exchange(agreed: null))
            .ShouldBe("The customer's data is on this drive. Ask whether it may leave, and write down who agreed.");

    [Theory]
    [InlineData(DataAgreement.AskEachTime, "Ask whether it may leave, and write down who agreed.")]
    [InlineData(DataAgreement.WipedFirst, "it was agreed that drives are wiped before they leave. Wipe it and record how,")]
    [InlineData(
        DataAgreement.StaysWithThem,
        "it was agreed that such drives stay with them. Hand it over, and record who took it; or write down who there agreed"
    )]
    [InlineData(
        DataAgreement.DestroyedThere,
        "it was agreed that such drives are destroyed there. Record how and before whom that was done; or write down who there agreed"
    )]
    public void What_was_agreed_with_the_customer_holds_until_somebody_there_agrees_otherwise(DataAgreement agreed, string says)
    {
        var played = Played.At("end", agreed);

        played.Refusal(Exchange(agreed: null)).ShouldContain(says);
        played.Refusal(Exchange()).ShouldBe("accepted"); // the archivist said so
        played.Does(new DriveWiped(Some.Bad, "Written over, array marks too"));
        played.Refusal(Exchange(agreed: null)).ShouldBe("accepted");
    }

    [Fact]
    public void A_drive_that_may_leave_by_contract_leaves_without_being_asked_for() =>
        Played.At("end", DataAgreement.MayLeave).Refusal(Exchange(agreed: null)).ShouldBe("accepted");

    [Fact]
    public void An_exchange_has_an_authorisation_number() =>
        Played
            .At("end")
            .Refusal(Exchange(number: null))
            .ShouldBe("An exchange under warranty has an authorisation number; without it the maker sends the drive back.");

    [Fact]
    public void What_is_in_a_bay_is_not_returned() =>
        Played
            .At("end")
            .Refusal(Exchange() with { Serial = Some.New })
            .ShouldBe($"{Some.New} is with bay 2; only what an engineer holds is returned.");

    [Fact]
    public void The_wrong_serial_in_the_box_is_a_discrepancy_and_the_drive_stays_out()
    {
        var played = Played.At("end");
        played.Does(Exchange());
        played.Does(new ReturnSent(Some.Bad, "Overfell Parcels"));

        played.Does(new ReturnArrived(Some.Bad, "P8GOOD0003"), Played.Sefa);

        played.Ticket.Custody.HolderOf(Some.Bad).ShouldBe(new Holder(HolderKind.Carrier, "Overfell Parcels"));
        played
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe([$"The box for {Some.Bad} held something else. P8GOOD0003 was read; {Some.Bad} was expected."]);
    }

    public static TheoryData<string, EntryBody[], string> WaysOutOfAHand() =>
        new()
        {
            { "sent", [new ReturnSent(Some.New, "Gullwing Freight")], "with carrier Gullwing Freight" },
            {
                "arrived",
                [new ReturnSent(Some.New, "Gullwing Freight"), new ReturnArrived(Some.New, Some.New, Shelf: "B2")],
                "set aside in Main"
            },
            { "taken back", [new PartTakenBack(Some.New, "Main", "B2")], "set aside in Main" },
            { "taken back into a van", [new PartTakenBack(Some.New, "van of wenna")], "set aside in van of wenna" },
            { "lost", [new PartLost(Some.New, "It fell into the sea.", "nothing")], "lost" },
            { "destroyed", [new DriveDestroyed(Some.New, "Shredded", "Sefa")], "destroyed" },
        };

    /// <summary>Whichever way it leaves who would fit it, nobody has it in hand any more, and what comes next says so.</summary>
    [Theory]
    [MemberData(nameof(WaysOutOfAHand))]
    public void A_part_that_leaves_the_engineers_hand_is_in_nobodys_and_what_comes_next_says_so(string way, EntryBody[] said, string where)
    {
        var played = Issued();
        played.Ticket.Parts.ShouldHaveSingleItem().IssuedTo.ShouldBe("ilka", way);
        played.Arrives(new ReturnOpened(Some.New, ReturnReason.BackUnopened, new(HolderKind.Depot, "Main")), Played.Sefa);

        foreach (var body in said)
            played.Arrives(body, Played.Sefa);

        played.Ticket.Parts.ShouldHaveSingleItem().IssuedTo.ShouldBeNull(way);
        var next = NextAction.Of(played.Ticket);
        next.Who.ShouldBe("stores", way);
        var lies = played.Ticket.Custody.HolderOf(Some.New) is { Kind: HolderKind.Depot or HolderKind.Van };
        next.Move.ShouldBe(lies ? Move.IssuePart : Move.ReservePart, $"{way}: {next.Say}");
        Replacement.Of(played.Ticket).ShouldHaveSingleItem().Is.ShouldBe(where, way);
    }

    private static Played Issued()
    {
        var played = Played.Reported();
        played.Does(new EngineerAssigned("ilka"));
        played.Does(new SnapshotTaken(Some.Snapshot()));
        played.Does(new PartReserved(Some.New, "Cindral C8", 8_001_563_222_016, "Main"), Played.Sefa);
        played.Does(new PartIssued(Some.New, "ilka"), Played.Sefa);
        return played;
    }

    [Fact]
    public void A_replacement_that_is_smaller_than_the_array_uses_is_refused()
    {
        var played = Played.Reported();
        played.Does(new SnapshotTaken(Some.Snapshot()));

        played
            .Refusal(new PartReserved(Some.New, "Cindral C8", 7_999_999_999_999, "Stores"), Played.Sefa)
            .ShouldBe($"{Some.New} has 7,999,999,999,999 bytes; 8,000,000,000,000 are needed for the array to hold what it holds now.");
    }

    [Fact]
    public void A_ticket_closes_when_everything_is_accounted_for_and_tells_by_name_what_is_not()
    {
        var played = Played.At("end");
        played
            .Refusal(new TicketClosed())
            .ShouldBe($"Not yet: sign-off: The customer has not signed off. custody: {Some.Bad} is with engineer ilka.");

        played.Does(Exchange());
        played.Does(new ReturnSent(Some.Bad, "Overfell Parcels"));
        played.Does(new ReturnArrived(Some.Bad, Some.Bad.ToLowerInvariant()), Played.Sefa);
        played.Does(new CustomerSignedOff("Archivist"));
        played.Does(new TicketClosed());

        played.Ticket.Stage.ShouldBe(Stage.Closed);
        played.Refusal(new EngineerAssigned("tamsel"), Played.Lioth).ShouldBe("T-1001 is closed; nothing more is decided on it.");
    }

    [Fact]
    public void A_lead_may_close_otherwise_in_writing_but_never_with_a_drive_unaccounted_for()
    {
        var played = Played.At("end");
        var handedOver = new TicketClosed(ClosedOtherwise.HandedOver, "The customer watches it from here.");

        played.Refusal(handedOver).ShouldBe("Closing as handed-over takes a lead.");
        played
            .Refusal(handedOver with { Reason = "" }, Played.Lioth)
            .ShouldBe("Closing a ticket otherwise than whole takes a reason in writing.");
        played.Refusal(handedOver, Played.Lioth).ShouldBe($"Not yet: custody: {Some.Bad} is with engineer ilka.");
    }
}
