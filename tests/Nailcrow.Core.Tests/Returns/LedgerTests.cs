using CsCheck;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>One line of custody for each part, whatever tickets say of it, in whatever order it comes.</summary>
public class LedgerTests
{
    private const string Serial = "C8NEWW2286";

    private static readonly Actor Stores = new("sefa", [Role.Stores, Role.Lead]);

    /// <summary>What is done with one part, an hour apart, as a pen that writes it all down would.</summary>
    private sealed class Pen
    {
        private readonly Dictionary<string, List<Movement>> _lines = [];

        public TicketRecord Record { get; private set; } = TicketRecord.Of(1001, []);

        public void Arrives(Intent intent)
        {
            var entry = Record.Next(intent, Some.Noon.AddDays(30));
            var before = Record.Ticket;
            Record = Record.With(entry);
            Take(TicketMovements.Between(before, Record.Ticket, entry), entry);
        }

        public void Take(IEnumerable<Movement> movements, Entry? cause = null)
        {
            foreach (var movement in movements)
            {
                var kept = Of(movement.Serial);
                if (PartLine.Due(movement.Serial, kept, movement, cause) is { } due)
                    kept.Add(due with { Seq = kept.Count + 1 });
            }
        }

        public PartLine Line(string serial = Serial) => PartLine.Of(serial, Of(serial));

        private List<Movement> Of(string serial) => _lines.TryGetValue(serial, out var kept) ? kept : _lines[serial] = [];
    }

    private static Intent At(int hour, EntryBody body) =>
        new(Guid.CreateVersion7(Some.Noon.AddHours(hour)), Some.Noon.AddHours(hour), 0, Stores, body);

    private static readonly FaultReported Report = new(
        "FSC-1",
        "CH-1",
        "brackmere-b12",
        "Corrin Trust",
        "Corrin",
        "Hall",
        JobKind.Fault,
        "Lamp"
    );

    /// <summary>A part's way to a bay, out of it as dead, and back; one hand-over was a slip, and was put right.</summary>
    private static IReadOnlyList<Intent> ALife()
    {
        var slip = At(3, new PartIssued(Serial, "wenna"));
        return
        [
            At(0, Report),
            At(1, new PartReserved(Serial, "Cindral C8", 8_000_000_000_000, "Stores")),
            At(2, new PartIssued(Serial, "ilka")),
            slip,
            At(4, new DriveInserted("2", Serial)),
            At(5, new DriveWithdrawn("2", Serial)),
            At(6, new EntryCorrected(slip.Id, "It was never out of the van.")),
            At(7, new DriveWiped(Serial, "Sanitize command")),
            At(8, new ReturnOpened(Serial, ReturnReason.BackToStores, new(HolderKind.Depot, "Stores"), DueBy: new(2026, 4, 1))),
            At(9, new ReturnSent(Serial, "Gullwing Freight")),
            At(10, new ReturnArrived(Serial, Serial, Shelf: "B2")),
        ];
    }

    [Fact]
    public void Ten_thousand_orders_of_late_and_repeated_entries_end_in_the_same_line()
    {
        var life = ALife();
        var inOrder = new Pen();
        foreach (var intent in life)
            inOrder.Arrives(intent);
        var expected = Told(inOrder);
        inOrder.Line().Holder.ShouldBe(new Holder(HolderKind.Depot, "Stores", "B2"));

        Gen.Shuffle(life.Skip(1).ToArray())
            .Sample(
                order =>
                {
                    var pen = new Pen();
                    pen.Arrives(life[0]);
                    foreach (var intent in order)
                        pen.Arrives(intent);
                    return Told(pen) == expected && Told(pen) == OfTicket(pen.Record);
                },
                iter: 10_000
            );
    }

    /// <summary>Who had it, one after the other, by the ledger.</summary>
    private static string Told(Pen pen) =>
        string.Join("; ", pen.Line().Movements.Where(m => m.To is not null).Select(m => $"{m.At:dd HH} {m.To}"));

    /// <summary>The same by the ticket's own fold, which knows no ledger.</summary>
    private static string OfTicket(TicketRecord record) =>
        string.Join("; ", record.Ticket.Custody.Moves.Where(m => m.Serial == Serial).Select(m => $"{m.At:dd HH} {m.To}"));

    [Fact]
    public void What_is_told_again_is_written_once()
    {
        var pen = new Pen();
        foreach (var intent in ALife())
            pen.Arrives(intent);
        var lines = pen.Line().Movements.Count;

        pen.Take(TicketMovements.Between(new(1001), pen.Record.Ticket, pen.Record.Arrived[^1]), pen.Record.Arrived[^1]);

        pen.Line().Movements.Count.ShouldBe(lines);
    }

    [Fact]
    public void A_wipe_that_is_recorded_late_has_its_own_time_and_so_keeps_the_one_before_it()
    {
        var pen = new Pen();
        foreach (var intent in ALife().Take(8))
            pen.Arrives(intent);

        pen.Arrives(At(6, new DriveWiped(Serial, "Overwritten once"))); // somebody's phone was without a network
        pen.Arrives(At(9, new DriveWiped(Serial, "Overwritten twice")));

        pen.Line().Movements.Where(m => m.Kind == MovementKind.Wiped).Select(m => (m.At - Some.Noon).TotalHours).ShouldBe([6, 7, 9]);
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
    public void A_part_is_set_aside_until_it_is_in_or_given_up()
    {
        var pen = new Pen();
        var life = ALife();
        foreach (var intent in life.Take(4))
            pen.Arrives(intent);

        pen.Line().ReservedFor.ShouldBe([1001]);
        Reservable
            .WhyNot(pen.Line(), 1002)
            .ShouldBe($"{Serial} is set aside for T-1001 already. Take another part, or give it up there first.");
        Reservable.WhyNot(pen.Line(), 1001).ShouldBeNull();
        pen.Arrives(life[4]);
        pen.Line().ReservedFor.ShouldBeEmpty();
        Reservable.WhyNot(pen.Line(), 1002)!.ShouldContain("is in bay 2 of FSC-1, by T-1001");
    }

    [Fact]
    public void Stores_finds_it_on_the_shelf_and_the_shelf_is_where_it_is()
    {
        var pen = new Pen();
        foreach (var intent in ALife().Take(5))
            pen.Arrives(intent);
        var found = new Movement(
            Guid.CreateVersion7(),
            Serial,
            MovementKind.Counted,
            Some.Noon.AddDays(2),
            "sefa",
            new Holder(HolderKind.Depot, "Stores", "A1")
        );

        pen.Take([found, found]);

        pen.Line().Holder!.Shelf.ShouldBe("A1");
        pen.Line().UnwipedFrom.ShouldBe("FSC-1");
        Reservable.WhyNot(pen.Line(), 1002).ShouldBeNull();
    }

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
                $"{Serial} lies in depot Stores; it came out of FSC-9 as faulty, and nothing since says that it is good. "
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

    [Fact]
    public void Setting_it_aside_leaves_it_on_its_shelf()
    {
        var pen = new Pen();
        var shelf = new Holder(HolderKind.Depot, "Stores", "A1");
        pen.Take([new(Guid.CreateVersion7(), Serial, MovementKind.Came, Some.Noon.AddDays(-9), "sefa", shelf, Part: new("Cindral C8", 8))]);
        foreach (var intent in ALife().Take(2))
            pen.Arrives(intent);

        (pen.Line().Holder, pen.Line().ReservedFor[0]).ShouldBe((shelf, 1001));
    }

    [Fact]
    public void A_list_of_stock_that_comes_after_the_work_moves_nothing_back_to_its_shelf()
    {
        var pen = new Pen();
        foreach (var intent in ALife().Take(5))
            pen.Arrives(intent);

        pen.Take([
            new(
                Guid.CreateVersion7(),
                Serial,
                MovementKind.Came,
                Some.Noon.AddDays(9),
                "sefa",
                new(HolderKind.Depot, "Stores"),
                Part: new("Cindral C8", 8)
            ),
        ]);

        pen.Line().Holder.ShouldBe(new Holder(HolderKind.Bay, "2"));
    }

    /// <summary>Parts come in, and for years anything is done with any of them, by tickets and by stores.</summary>
    [Fact]
    public void Whatever_is_done_in_whatever_order_over_years_every_part_is_with_one_holder_and_in_is_out() =>
        Gen.Select(Gen.Int[0, 11], Gen.Int[0, 8], Gen.Int[0, 2_000])
            .Array[1, 300]
            .Sample(
                deeds =>
                {
                    var lines = new Dictionary<string, List<Movement>>();
                    foreach (var (part, kind, hour) in deeds)
                    {
                        var serial = $"PART{part:00000}X";
                        var kept = lines.TryGetValue(serial, out var known) ? known : lines[serial] = [];
                        if (PartLine.Due(serial, kept, Deed(serial, kind, hour, kept), null) is { } due)
                            kept.Add(due with { Seq = kept.Count + 1 });
                    }
                    var balancing = new Balancing();
                    foreach (var (serial, kept) in lines)
                        balancing.Add(PartLine.Of(serial, kept));
                    var balance = balancing.Result([]);
                    var somewhere = lines.Count(l => PartLine.Of(l.Key, l.Value).Holder is not null);
                    return balance.Difference == 0 && balance.Parts == somewhere && balance.Holders.All(h => h.Parts == h.In - h.Out);
                },
                iter: 2_000
            );

    private static Movement Deed(string serial, int kind, int hour, List<Movement> kept)
    {
        var at = Some.Noon.AddHours(hour);
        Holder[] holders =
        [
            new(HolderKind.Depot, "Stores", "A1"),
            new(HolderKind.Engineer, "ilka"),
            new(HolderKind.Bay, "2"),
            new(HolderKind.Carrier, "Gullwing Freight"),
            new(HolderKind.Maker, "Pellworth"),
            new(HolderKind.Lost, "ilka"),
        ];
        var undone = kept.Find(m => m.Of is null)?.Id;
        return kind switch
        {
            6 => new(
                Guid.CreateVersion7(),
                serial,
                MovementKind.Reserved,
                at,
                "sefa",
                new(HolderKind.Depot, "Stores"),
                Ticket: 1001 + (hour % 3)
            ),
            7 => new(Guid.CreateVersion7(), serial, MovementKind.Came, at, "sefa", holders[0], Part: new("Cindral C8", 8)),
            8 when undone is { } of => new(Guid.CreateVersion7(), serial, MovementKind.Undone, at, "sefa", Of: of),
            _ => new(Guid.CreateVersion7(), serial, MovementKind.Went, at, "sefa", holders[kind % 6]),
        };
    }

    [Fact]
    public void What_a_line_says_is_what_is_read_from_its_text()
    {
        var pen = new Pen();
        foreach (var intent in ALife())
            pen.Arrives(intent);

        foreach (var movement in pen.Line().Movements)
            MovementText.Read(MovementText.Of(movement)).ShouldBe(movement);
        MovementText.Read("{\"serial\":7}").ShouldBeNull();
    }
}
