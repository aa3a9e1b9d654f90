using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Gates;
using Nailcrow.Core.Tickets;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Core.Tests.Swaps;

/// <summary>A part that is none gives its place to another; nothing else on the sheet or in the record changes by that.</summary>
public class AnotherPartTests
{
    private const string Other = "C8OTHER01";

    [Fact]
    public void The_sheet_names_the_other_part_and_no_serial_that_only_begins_like_the_one_given_up()
    {
        var played = Played.WithSheet();
        var sheet = played.Ticket.Sheet!; // made above
        var longer = $"{Some.New}9";
        var ticket = played.Ticket with
        {
            Sheet = sheet with { Steps = [sheet.Steps[0] with { Say = $"Have {Some.New} with you, and not {longer}." }] },
        };

        var named = ticket.WithAnotherPart(Some.New, Other, played.Record.Arrived[^1].Stamp).Sheet!;

        named.Steps[0].Say.ShouldBe($"Have {Other} with you, and not {longer}.");
        named.Drives![0].PartSerial.ShouldBe(Other);
        named.Id.ShouldNotBe(sheet.Id);
    }

    [Fact]
    public void What_is_given_up_twice_is_given_up_once_and_the_last_reason_stands()
    {
        var played = Played.WithSheet();
        played.Does(new PartGivenUp(Some.New, NoReplacement.DeadOnArrival));
        played.Does(new PartGivenUp(Some.New, NoReplacement.DeadOnArrival));
        played.Ticket.GivenUp.Count.ShouldBe(1);
        played.Does(new PartGivenUp(Some.New, NoReplacement.TooSmall));

        played.Ticket.GivenUp.ShouldHaveSingleItem().GivenUp.ShouldBe(NoReplacement.TooSmall);
        played.Ticket.PartsSetAside.ShouldBe(0);
    }

    [Fact]
    public void The_part_that_was_given_up_lies_beside_the_other_and_is_known_when_it_is_scanned_once_more()
    {
        var played = Played.At("serial-in");
        played.Does(new PartGivenUp(Some.New, NoReplacement.DeadOnArrival));
        played.Does(new PartReserved(Other, "Cindral C8", 8_000_000_000_000, "Main stores"), Played.Sefa);
        played.Does(new PartIssued(Other, "ilka"), Played.Sefa);
        const string Told = "That part was given up: dead on arrival. Take the one that takes its place.";

        played.Answers(Some.New);
        (played.Ticket.Run?.Current, played.Ticket.Run?.Visits[^1].Said).ShouldBe(
            ("serial-in", $"{Some.New} was read; {Other} was expected. {Told}")
        );
        played.Answers(Some.New);
        (played.Ticket.Run?.Current, played.Ticket.Run?.Visits[^1].Said).ShouldBe(
            ("wrong-part", $"{Some.New} was read; {Other} was expected. {Told}")
        );

        played.Answers(RunStep.Done);
        played.Answers(Other);
        played.Ticket.Run?.Current.ShouldNotBe("serial-in");
    }

    [Fact]
    public void A_sheet_that_is_made_while_the_place_of_a_part_waits_names_no_part()
    {
        var played = Played.WithSheet();
        SheetFactsOf.Ticket(played.Ticket, Some.Model, Some.Chassis, reached: true).Drives.Single().PartSerial.ShouldBe(Some.New);

        played.Does(new PartGivenUp(Some.New, NoReplacement.DoesNotFit));

        SheetFactsOf.Ticket(played.Ticket, Some.Model, Some.Chassis, reached: true).Drives.Single().PartSerial.ShouldBeNull();
    }

    [Fact]
    public void Counting_with_a_lead_is_a_mark_again_after_it_led_astray_and_nothing_else_is()
    {
        var ticket = Played.WithSheet().Ticket;
        var gate = ticket.Sheet!.Steps.First(s => s.Gate == GateFact.BayEstablished); // the sheet has one
        MarkSeen[] before = [new("software", 0), new("count", 0), new("counted together", 0)];
        Ticket After(params string[] marks) =>
            ticket with
            {
                Swap = ticket.Swap with
                {
                    NearMisses = [new("3", "OTHER0003", Some.Noon, "ilka")],
                    BayMarks = [.. before, .. marks.Select(m => new MarkSeen(m, 1))],
                },
            };

        GateCheck.Unmet(After("software", "count"), ticket.Run!, gate, Some.Noon).ShouldNotBeNull();
        GateCheck.Unmet(After("software", "counted together"), ticket.Run!, gate, Some.Noon).ShouldBeNull();
    }
}
