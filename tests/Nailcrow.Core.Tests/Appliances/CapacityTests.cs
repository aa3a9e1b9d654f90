using CsCheck;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using static Nailcrow.Core.Tests.Generated;

namespace Nailcrow.Core.Tests.Appliances;

public class CapacityTests
{
    [Fact]
    public void Usable_protected_and_unused_add_up_to_what_is_there_for_every_level_and_every_mix_of_sizes() =>
        (
            from level in OneOf(Enum.GetValues<ArrayLevel>())
            from sizes in Gen.Long[1, 20_000_000_000_000].Array[4, 12]
            select (level, sizes)
        ).Sample(a =>
        {
            var capacity = Capacity.Of(a.level, a.sizes, groups: a.level is ArrayLevel.Raid50 or ArrayLevel.Raid60 ? 2 : null, parity: 2);

            (capacity.Usable + capacity.Protected + capacity.Unused).ShouldBe(a.sizes.Sum());
            Math.Min(capacity.Usable, Math.Min(capacity.Protected, capacity.Unused)).ShouldBeGreaterThanOrEqualTo(0);
        });

    [Theory]
    [InlineData(ArrayLevel.Raid0, "4 4 8", 12, 0, 4)]
    [InlineData(ArrayLevel.Raid1, "4 8", 4, 4, 4)]
    [InlineData(ArrayLevel.Raid5, "8 8 8 8", 24, 8, 0)]
    [InlineData(ArrayLevel.Raid6, "8 8 8 12", 16, 16, 4)]
    [InlineData(ArrayLevel.Raid10, "4 4 4 4", 8, 8, 0)]
    [InlineData(ArrayLevel.Raid50, "4 4 4 4 4 4", 16, 8, 0)]
    [InlineData(ArrayLevel.TripleParity, "8 8 8 8 8", 16, 24, 0)]
    [InlineData(ArrayLevel.MixedSizeOne, "4 8 12", 12, 8, 4)]
    [InlineData(ArrayLevel.MixedSizeTwo, "4 4 8 8", 8, 8, 8)]
    public void Each_level_holds_what_its_formula_says(ArrayLevel level, string terabytes, long usable, long spent, long unused) =>
        Capacity.Of(level, [.. terabytes.Split(' ').Select(long.Parse)]).ShouldBe(new Capacity(usable, spent, unused));

    [Fact]
    public void No_other_choice_of_bays_and_drives_gains_more_than_the_plan_that_is_offered() =>
        (
            from level in OneOf(ArrayLevel.Raid5, ArrayLevel.Raid6, ArrayLevel.MixedSizeOne, ArrayLevel.MixedSizeTwo, ArrayLevel.Raid10)
            from have in Gen.Long[1, 9].Array[4]
            from stock in Gen.Long[1, 12].Array[1, 3]
            select (level, have, stock)
        ).Sample(a =>
        {
            var array = new DriveArray("a", a.level, 4, ArrayState.Whole);
            var members = a.have.Select((size, i) => new Bay($"{i}", BayRole.Member, Bytes: size, Array: "a")).ToList();

            var offered = Upgrades.Best(array, members, a.stock).Select(u => u.Gain).DefaultIfEmpty(0).Max();

            offered.ShouldBe(
                Math.Max(
                    0,
                    EveryChoice(a.have, [.. a.stock]).Max(sizes => Capacity.Of(a.level, sizes).Usable) - Capacity.Of(a.level, a.have).Usable
                )
            );
        });

    /// <summary>Every way to put drives of a stock in place of drives that are there.</summary>
    private static IEnumerable<long[]> EveryChoice(long[] have, List<long> stock)
    {
        yield return have;
        foreach (var part in stock.Distinct().ToList())
            for (var bay = 0; bay < have.Length; bay++)
                foreach (
                    var more in EveryChoice(
                        [.. have.Select((size, i) => i == bay ? part : size)],
                        [.. stock.Where((_, i) => i != stock.IndexOf(part))]
                    )
                )
                    yield return more;
    }

    [Fact]
    public void Two_chances_of_loss_come_as_ranges_with_what_they_were_reckoned_from()
    {
        var snapshot = Some.Snapshot(ArrayLevel.Raid5);

        var chances =
            LossChances.Of(snapshot, snapshot.Arrays[0], megabytesPerSecond: 200)
            ?? throw new InvalidOperationException("There is something to reckon.");

        chances.HoursLow.ShouldBe(15.4, 0.01); // 8 TB at 200 MB/s, a disk being half as fast at its end
        chances.DrivesFail.Inputs.ShouldBe(["n = 5 members left", "r = 1 % to 3 % a year", "t = 15.4 to 46.2 h"]);
        (Math.Round(chances.Unreadable.Low, 4), Math.Round(chances.Unreadable.High, 4)).ShouldBe(
            (0.2739, 0.9592),
            "1 - exp(-5 · 64e12 · 1e-15) and with 1e-14"
        );
    }

    [Fact]
    public void With_margin_left_an_unreadable_sector_loses_nothing()
    {
        var snapshot = Some.Snapshot();

        LossChances.Of(snapshot, snapshot.Arrays[0], 200)?.Unreadable.High.ShouldBe(0);
    }

    [Theory]
    [InlineData(0.0123456, 0.35, "1.2 to 35 %")]
    [InlineData(0.0000002, 0.0004, "under 0.01 to 0.04 %")]
    [InlineData(0.0000002, 0.00002, "under 0.01 %")]
    [InlineData(0.2, 1, "20 to 100 %")]
    [InlineData(0, 0, "0 %")]
    public void A_chance_is_told_as_a_range_with_no_more_digits_than_it_is_worth(double low, double high, string told) =>
        Chance.Of(low, high, "", []).Told.ShouldBe(told);

    [Theory]
    [InlineData("8 8 8 12", "1:12+4 2:12+4 3:12+4 4:0")] // beside one of 12, another of 12 gives 4, and 16 no more
    [InlineData("8 8 8 8", "1:0 2:0 3:0 4:0")] // the first larger one gives nothing
    [InlineData("4 8 8 8", "1:8+4 2:0 3:0 4:0")]
    [InlineData("4 8 12 12", "1:12+8 2:12+4 3:0 4:0")]
    public void For_each_bay_the_smallest_size_is_named_that_gives_all_it_can(string terabytes, string expected)
    {
        var array = new DriveArray("vault", ArrayLevel.MixedSizeOne, 4, ArrayState.Whole);
        var members = terabytes
            .Split(' ')
            .Select((s, i) => new Bay($"{i + 1}", BayRole.Member, Serial: $"S{i}", Bytes: long.Parse(s), Array: "vault"))
            .ToList();

        var each = Upgrades.EachBay(array, members, [16, 12, 8, 4]);

        string.Join(' ', each.Select(b => b.Size is { } size ? $"{b.Bay}:{size}+{b.Gain}" : $"{b.Bay}:0")).ShouldBe(expected);
    }
}
