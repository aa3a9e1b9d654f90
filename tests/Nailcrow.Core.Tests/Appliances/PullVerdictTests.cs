using CsCheck;
using Nailcrow.Core.Appliances;
using static Nailcrow.Core.Tests.Generated;

namespace Nailcrow.Core.Tests.Appliances;

public class PullVerdictTests
{
    [Fact]
    public void The_bad_drive_may_go_and_each_good_one_thins_what_is_left()
    {
        var verdicts = BayVerdict.ForAll(Some.Snapshot());

        verdicts.Single(v => v.Bay == "2").ShouldBe(new BayVerdict("2", PullVerdict.Safe, "vault has already dropped this drive and runs without it."));
        verdicts.Single(v => v.Bay == "3").ShouldBe(new BayVerdict("3", PullVerdict.Thins, "vault survives, but could then lose no drive more."));
    }

    [Fact]
    public void At_no_margin_every_member_is_fatal()
    {
        var snapshot = Some.Snapshot(ArrayLevel.Raid5);

        BayVerdict.ForAll(snapshot).Single(v => v.Bay == "5").ShouldBe(new BayVerdict("5", PullVerdict.Fatal, "vault cannot lose this member: its data would be lost."));
    }

    [Fact]
    public void A_drive_being_filled_costs_no_data_but_its_rebuild()
    {
        var snapshot = Some.Snapshot(state: ArrayState.Rebuilding, badRole: BayRole.Filling);

        BayVerdict.ForAll(snapshot).Single(v => v.Bay == "2").ShouldBe(new BayVerdict("2", PullVerdict.Safe, "vault does not count on this drive yet, but its rebuild would start over."));
    }

    /// <summary>Levels as they are in the world: which sets of lost members lose the data.</summary>
    private static bool Survives(ArrayLevel level, IReadOnlyList<bool> present) =>
        level switch
        {
            ArrayLevel.Raid0 => present.All(p => p),
            ArrayLevel.Raid1 => present.Any(p => p),
            ArrayLevel.Raid5 => present.Count(p => !p) <= 1,
            ArrayLevel.Raid6 => present.Count(p => !p) <= 2,
            _ => Enumerable.Range(0, present.Count / 2).All(m => present[2 * m] || present[2 * m + 1]),
        };

    /// <summary>The most further losses of any members that are all survived; -1 where the data is lost already.</summary>
    private static int Bears(ArrayLevel level, bool[] present)
    {
        if (!Survives(level, present))
            return -1;
        var left = Enumerable.Range(0, present.Length).Where(i => present[i]).ToList();
        return left.Count == 0 ? 0 : Math.Max(0, 1 + left.Min(i => Bears(level, [.. present.Select((p, j) => p && j != i)])));
    }

    [Fact]
    public void No_verdict_is_better_than_trying_every_further_loss_says()
    {
        var arrays =
            from level in OneOf(ArrayLevel.Raid0, ArrayLevel.Raid1, ArrayLevel.Raid5, ArrayLevel.Raid6, ArrayLevel.Raid10)
            from pairs in Gen.Int[2, 4]
            from known in Gen.Bool
            from present in Gen.Bool.Array[2 * pairs]
            select (level, known, present);

        arrays.Sample(a =>
        {
            var (snapshot, array) = Some.Array(a.level, string.Concat(a.present.Select(p => p ? 'm' : 'd')), mirrors: a.known && a.level == ArrayLevel.Raid10);
            var now = Bears(a.level, a.present);
            if (now >= 0 || a.known || a.level != ArrayLevel.Raid10) // nobody can tell a lost mirror where the pairs are unknown
                Margin.Of(snapshot, array).ShouldBeLessThanOrEqualTo(now);
            foreach (var i in Enumerable.Range(0, a.present.Length).Where(i => a.present[i] && now >= 0))
            {
                var after = Bears(a.level, [.. a.present.Select((p, j) => p && j != i)]);
                var verdict = BayVerdict.For(snapshot, snapshot.Bays[i]).Verdict;
                (after < 0 ? verdict : PullVerdict.Fatal).ShouldBe(PullVerdict.Fatal);
                if (a.level != ArrayLevel.Raid10 || a.known)
                    verdict.ShouldBe(after < 0 ? PullVerdict.Fatal : PullVerdict.Thins);
            }
        });
    }
}
