using CsCheck;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using static Nailcrow.Core.Tests.Returns.OnePart;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>One line of custody for each part, whatever tickets say of it, in whatever order it comes.</summary>
public class LedgerTests
{
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
