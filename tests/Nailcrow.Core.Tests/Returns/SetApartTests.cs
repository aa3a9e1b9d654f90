using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using static Nailcrow.Core.Tests.Returns.OnePart;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>What lies in a depot and is no stock: to be destroyed, evidence, dead on arrival, failed.</summary>
public class SetApartTests
{
    private static Pen DeadOnArrival(params Intent[] then)
    {
        var pen = new Pen();
        foreach (
            var intent in (Intent[])
                [
                    At(0, Report),
                    At(1, new PartReserved(Serial, "Cindral C8", 8_000_000_000_000, "Stores")),
                    At(2, new PartIssued(Serial, "ilka")),
                    At(3, new PartGivenUp(Serial, NoReplacement.DeadOnArrival)),
                    .. then,
                ]
        )
            pen.Arrives(intent);
        return pen;
    }

    [Fact]
    public void What_came_to_be_destroyed_or_as_evidence_is_no_stock_whatever_is_done_with_it_there()
    {
        foreach (var why in new[] { ReturnReason.ToBeDestroyed, ReturnReason.Evidence })
        {
            var apart = why == ReturnReason.Evidence ? SetApart.Evidence : SetApart.ToBeDestroyed;
            var pen = new Pen();
            foreach (var intent in ALife().Take(6))
                pen.Arrives(intent);
            pen.Arrives(At(8, new ReturnOpened(Serial, why, new(HolderKind.Depot, "Stores"), DataAgreedBy: "R. Alder")));
            pen.Arrives(At(9, new ReturnSent(Serial, "Gullwing Freight")));
            pen.Line().Apart.ShouldBeNull();
            pen.Arrives(At(10, new ReturnArrived(Serial, Serial, Shelf: "B2")));

            pen.Line().Apart.ShouldBe(apart);
            Reservable
                .WhyNot(pen.Line(), 1001)
                .ShouldBe(
                    $"{Serial} lies in depot Stores, shelf B2, {(why == ReturnReason.Evidence ? "as evidence" : "to be destroyed")}. "
                        + "Take another part."
                );
            pen.Take([
                new(
                    Guid.CreateVersion7(),
                    Serial,
                    MovementKind.Went,
                    Some.Noon.AddHours(11),
                    "sefa",
                    new(HolderKind.Depot, "Stores", "C4")
                ),
            ]);
            pen.Line().Apart.ShouldBe(apart, "another shelf is no other reason");
            pen.Take([
                new(Guid.CreateVersion7(), Serial, MovementKind.Went, Some.Noon.AddHours(12), "sefa", new(HolderKind.Carrier, "Nightline")),
            ]);
            pen.Line().Apart.ShouldBeNull();
        }
    }

    [Fact]
    public void What_was_dead_on_arrival_lies_apart_in_its_depot_however_it_came_back()
    {
        var overTheCounter = DeadOnArrival(At(4, new PartTakenBack(Serial, "Stores")));
        var inABox = DeadOnArrival(
            At(4, new ReturnOpened(Serial, ReturnReason.DeadOnArrival, new(HolderKind.Depot, "Stores"))),
            At(5, new ReturnSent(Serial, "Gullwing Freight")),
            At(6, new ReturnArrived(Serial, Serial)),
            At(7, new DriveWiped(Serial, "Overwritten once"))
        );

        foreach (var pen in new[] { overTheCounter, inABox })
        {
            pen.Line().Apart.ShouldBe(SetApart.DeadOnArrival);
            Reservable.WhyNot(pen.Line(), 1002).ShouldBe($"{Serial} lies in {pen.Line().Holder}, dead on arrival. Take another part.");
            pen.Line().Movements.Select(m => m.Told()).ShouldContain("Given up: dead on arrival.");
        }
    }

    [Fact]
    public void What_stores_finds_nothing_wrong_with_is_a_part_again_and_so_is_what_was_never_given_up()
    {
        Intent[] back =
        [
            At(4, new ReturnOpened(Serial, ReturnReason.DeadOnArrival, new(HolderKind.Depot, "Stores"))),
            At(6, new ReturnArrived(Serial, Serial)),
        ];
        var slip = At(3, new PartGivenUp(Serial, NoReplacement.DeadOnArrival));

        DeadOnArrival([.. back, At(7, new ReturnInspected(Serial, InspectionFinding.NothingWrong, "Spins up here."))])
            .Line()
            .Apart.ShouldBeNull();
        DeadOnArrival([.. back, At(7, new ReturnInspected(Serial, InspectionFinding.AsAnnounced))])
            .Line()
            .Apart.ShouldBe(SetApart.DeadOnArrival);
        var pen = new Pen();
        pen.Arrives(At(0, Report));
        pen.Arrives(At(1, new PartReserved(Serial, "Cindral C8", 8_000_000_000_000, "Stores")));
        pen.Arrives(slip);
        pen.Arrives(At(4, new EntryCorrected(slip.Id, "It was another one.")));
        pen.Arrives(At(5, new PartTakenBack(Serial, "Stores")));
        pen.Line().Apart.ShouldBeNull();
    }

    [Fact]
    public void What_a_machine_called_faulty_is_taken_only_by_who_says_why_until_nothing_is_found_wrong_with_it()
    {
        static Movement Then(int hour, MovementKind kind, Holder? to = null, bool? failed = null, InspectionFinding? found = null) =>
            new(
                Guid.CreateVersion7(),
                Serial,
                kind,
                Some.Noon.AddHours(hour),
                "ilka",
                to,
                Asset: failed is null ? null : "FSC-9",
                Failed: failed,
                Found: found
            );
        var pen = new Pen();
        pen.Take([
            Then(1, MovementKind.Went, new(HolderKind.Engineer, "ilka"), failed: true),
            Then(2, MovementKind.Went, new(HolderKind.Depot, "Stores")),
            Then(3, MovementKind.Wiped),
        ]);

        pen.Line().Apart.ShouldBe(SetApart.Failed);
        Reservable
            .WhyNot(pen.Line(), 1002)
            .ShouldBe(
                $"{Serial} lies in depot Stores; FSC-9 called it faulty or worn, and nothing since says that it is good. "
                    + "Take another part, or say why this one is taken."
            );
        Reservable.WhyNot(pen.Line(), 1002, overruled: true).ShouldBeNull();
        pen.Take([Then(4, MovementKind.Inspected, found: InspectionFinding.AsAnnounced)]);
        pen.Line().Apart.ShouldBe(SetApart.Failed);
        pen.Take([Then(5, MovementKind.Inspected, found: InspectionFinding.NothingWrong)]);
        pen.Line().Apart.ShouldBeNull();
    }

    [Fact]
    public void A_part_given_up_for_what_is_on_it_waits_to_be_wiped()
    {
        var pen = new Pen();
        pen.Arrives(At(0, Report));
        pen.Arrives(At(1, new PartReserved(Serial, "Cindral C8", 8_000_000_000_000, "Stores")));
        pen.Arrives(At(2, new PartGivenUp(Serial, NoReplacement.CarriesOldData)));

        (pen.Line().Apart, pen.Line().UnwipedFrom).ShouldBe((null, "another machine"));
        pen.Take([new(Guid.CreateVersion7(), Serial, MovementKind.Wiped, Some.Noon.AddDays(1), "sefa")]);
        pen.Line().UnwipedFrom.ShouldBeNull();
    }
}
