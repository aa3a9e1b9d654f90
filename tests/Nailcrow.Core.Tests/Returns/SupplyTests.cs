using CsCheck;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>What has no serial is counted per holder: nothing is lost between two counts, and no count is below nothing.</summary>
public class SupplyTests
{
    private static readonly Holder Depot = new(HolderKind.Depot, "Stores");
    private static readonly Holder Van = new(HolderKind.Van, "ilka");
    private static readonly Actor Ilka = new("ilka", [Role.Engineer]);

    private static SupplyMove Move(SupplyWay way, int count, Holder? from = null, Holder? to = null) =>
        new(Guid.CreateVersion7(), "drive carrier", way, count, Some.Noon, "sefa", from, to);

    private static IReadOnlyList<SupplyMove> Kept(params SupplyMove[] moves) =>
        [.. moves.Select((move, nth) => move with { Seq = nth + 1, RecordedAt = Some.Noon })];

    [Fact]
    public void What_came_was_moved_used_and_counted_is_told_line_by_line()
    {
        var moves = Kept(
            Move(SupplyWay.Came, 1_200, to: Depot),
            Move(SupplyWay.Moved, 6, Depot, Van),
            Move(SupplyWay.Used, 2, Van),
            Move(SupplyWay.Counted, 3, Van),
            Move(SupplyWay.Used, 5, Van),
            Move(SupplyWay.Counted, 1_194, Depot)
        );

        SupplyLine
            .Told(moves)
            .ShouldBe([
                "1,200 came to depot Stores.",
                "6 went from depot Stores to the van of ilka.",
                "2 used up, from the van of ilka.",
                "Counted in the van of ilka: 3, 1 fewer than recorded.",
                "5 used up, from the van of ilka. By the record 3 were there: 2 found.",
                "Counted in depot Stores: 1,194, as recorded.",
            ]);
        var line = SupplyLine.Of(moves);
        (line.At(Depot), line.At(Van), line.Found, line.Missing).ShouldBe((1_194, 0, 2, 1));
    }

    /// <summary>The reference keeps a heap of pieces for each place, each piece with its own number, and counts heaps.</summary>
    [Fact]
    public void Whatever_is_done_over_years_no_count_is_below_nothing_and_in_is_out() =>
        Gen.Select(Gen.Int[0, 3], Gen.Int[0, 3], Gen.Int[0, 3], Gen.Int[0, 40])
            .Array[1, 200]
            .Sample(
                deeds =>
                {
                    Holder[] places = [Depot, Van, new(HolderKind.Depot, "Loft"), new(HolderKind.Van, "wenna")];
                    var heaps = places.ToDictionary(p => p, _ => new Stack<int>());
                    var (made, gone, moves) = (0, 0, new List<SupplyMove>());
                    foreach (var (way, from, to, count) in deeds)
                    {
                        moves.Add(Move((SupplyWay)way, count, places[from], places[to]));
                        var heap = heaps[way == (int)SupplyWay.Came ? places[to] : places[from]];
                        var until = way switch
                        {
                            (int)SupplyWay.Came => heap.Count + count,
                            (int)SupplyWay.Counted => count,
                            _ => Math.Max(heap.Count, count),
                        };
                        while (heap.Count < until)
                            heap.Push(made++);
                        for (; way == (int)SupplyWay.Counted && heap.Count > until; gone++)
                            heap.Pop();
                        for (var n = 0; n < count && way is (int)SupplyWay.Used or (int)SupplyWay.Moved && n < count; n++)
                            if (way == (int)SupplyWay.Moved)
                                heaps[places[to]].Push(heap.Pop());
                            else
                                gone += heap.TryPop(out _) ? 1 : 0;
                    }
                    var line = SupplyLine.Of(Kept([.. moves]));
                    return line.Difference == 0
                        && places.All(p => line.At(p) == heaps[p].Count)
                        && line.Came + line.Found == made
                        && line.Used + line.Missing == gone;
                },
                iter: 3_000
            );

    [Fact]
    public void The_list_of_counts_goes_on_where_the_whole_line_would() =>
        Gen.Select(Gen.Int[0, 3], Gen.Int[0, 9])
            .Array[2, 40]
            .Sample(deeds =>
            {
                var moves = Kept([.. deeds.Select(d => Move((SupplyWay)d.Item1, d.Item2, Depot, Van))]);
                var whole = SupplyLine.Of(moves);
                var on = SupplyLine.From(SupplyLine.Of(moves.Take(moves.Count - 1)).Counts).With(moves[^1]);
                return whole.Counts.All(c => on.At(c.Key) == c.Value);
            });

    private static Intent At(int hour, EntryBody body) =>
        new(Guid.CreateVersion7(Some.Noon.AddHours(hour)), Some.Noon.AddHours(hour), 0, Ilka, body);

    /// <summary>What its tickets' entries make of a supply's line, as the pen that keeps it would.</summary>
    private static (TicketRecord Record, List<SupplyMove> Line) Arrived(IEnumerable<Intent> intents)
    {
        var (record, line) = (TicketRecord.Of(1001, []), new List<SupplyMove>());
        foreach (var intent in intents)
        {
            var entry = record.Next(intent, Some.Noon.AddDays(30));
            var before = record.Ticket;
            record = record.With(entry);
            foreach (var move in SuppliesOf.Between(before, record.Ticket, entry))
                if (SupplyLine.Due(line, move, entry) is { } due)
                    line.Add(due with { Seq = line.Count + 1 });
        }
        return (record, line);
    }

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

    [Fact]
    public void A_use_that_was_put_right_taken_back_and_so_after_all_counts_as_it_stands()
    {
        var use = At(1, new SuppliesUsed("Drive  Carrier", 3));
        var right = At(2, new EntryCorrected(use.Id, "There were two.", new SuppliesUsed("drive carrier", 2)));
        var gone = At(3, new EntryCorrected(use.Id, "None was used."));

        long UsedAfter(params Intent[] intents) => SupplyLine.Of(Arrived([At(0, Report), .. intents]).Line).Used;

        UsedAfter(use).ShouldBe(3);
        UsedAfter(use, use).ShouldBe(3);
        UsedAfter(use, right).ShouldBe(2);
        UsedAfter(use, right, gone).ShouldBe(0);
        UsedAfter(use, gone, At(4, new EntryCorrected(gone.Id, "It was, after all."))).ShouldBe(3);
    }

    [Fact]
    public void What_is_used_comes_out_of_the_van_of_whoever_says_so_or_from_where_they_say()
    {
        var (record, _) = Arrived([
            At(0, Report),
            At(1, new SuppliesUsed("M3 screws", 8)),
            At(2, new SuppliesUsed("M3 screws", 4, "Stores")),
        ]);

        record.Ticket.Supplies.Select(s => s.From).ShouldBe([Van, Depot]);
        record.Arrived[1].Body.Told().ShouldBe("Used: 8 M3 screws");
    }

    [Theory]
    [InlineData("", 1, "Say what it is")]
    [InlineData("screws", 0, "0 cannot have been used; 1 to 1,000,000 are taken.")]
    [InlineData("screws", -3, "-3 cannot have been used")]
    [InlineData("screws", 1_000_001, "1,000,001 cannot have been used")]
    public void What_cannot_be_is_told(string supply, int count, string why) =>
        new SuppliesUsed(supply, count).Problem(new(1001)).ShouldNotBeNull().ShouldContain(why);

    [Fact]
    public void Case_blanks_and_direction_marks_make_no_other_supply()
    {
        static string Key(string name) => ((Parsed<SupplyName>.Ok)SupplyName.Parse(name)).Value.Key;

        Key(" M3\u00A0 screws\u200E ").ShouldBe(Key("m3 SCREWS"));
        SupplyName.Parse(new string('x', 81)).ShouldBeOfType<Parsed<SupplyName>.Refused>().Reason.ShouldContain("at most 80");
    }

    [Fact]
    public void Stores_moves_no_more_than_there_is_and_counts_what_is_there()
    {
        var now = SupplyLine.Of(Kept(Move(SupplyWay.Came, 3, to: Depot)));
        string? Asked(SupplyMove move, bool isNew = false) => SupplyDesk.WhyNot(move, now, isNew, ["M3 screws"]);

        Asked(Move(SupplyWay.Moved, 4, Depot, Van))
            .ShouldBe("drive carrier: by the record 3 are in depot Stores; 4 cannot leave it. Count there first if there are more.");
        Asked(Move(SupplyWay.Moved, 3, Depot, Van)).ShouldBeNull();
        Asked(Move(SupplyWay.Moved, 1, Depot, Depot)).ShouldBe("They are in depot Stores already; say another place.");
        Asked(Move(SupplyWay.Counted, 0, Depot)).ShouldBeNull();
        Asked(Move(SupplyWay.Came, 0, to: Depot)).ShouldBe("0 is no count; 1 to 1,000,000 are taken.");
        Asked(Move(SupplyWay.Used, 1, new(HolderKind.Bay, "2"))).ShouldNotBeNull().ShouldContain("depots and vans, not with bay");
        Asked(Move(SupplyWay.Used, 1, new(HolderKind.Depot, "Stores", "B2"))).ShouldNotBeNull().ShouldContain("leave the shelf out");
        Asked(Move(SupplyWay.Came, 5)).ShouldBe("Say to which depot, or whose van.");
        Asked(Move(SupplyWay.Used, 1, Depot), isNew: true)
            .ShouldBe("Nothing is known of drive carrier. Known: M3 screws. What is new comes first, or is counted.");
        Asked(Move(SupplyWay.Undone, 1, Depot)).ShouldNotBeNull();
        SupplyDesk.Near("M4 screws", ["drive carrier", "M3 screws"]).ShouldBe("M3 screws");
        SupplyDesk.Near("drive carier", ["M3 screws", "drive carriers"]).ShouldBe("drive carriers");
        SupplyDesk.Near("tapes", ["tags", "caps"]).ShouldBeNull();
        SupplyDesk.Near("cable 1 m", ["drive carrier", "M3 screws"]).ShouldBeNull();
    }

    [Fact]
    public void A_line_is_read_back_as_it_was_written() =>
        Gen.Select(Gen.Int[0, 5], Gen.Int, Gen.String)
            .Sample(one =>
            {
                var move = Move((SupplyWay)one.Item1, one.Item2, Depot, Van) with { Note = one.Item3.Length == 0 ? null : "n" + one.Item3 };
                var text = SupplyText.Of(move);
                return SupplyText.Read(text) == move && SupplyText.Of(SupplyText.Read(text)!) == text;
            });
}
