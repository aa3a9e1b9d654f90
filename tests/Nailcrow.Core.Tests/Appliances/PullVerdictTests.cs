using CsCheck;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using static Nailcrow.Core.Tests.Generated;

namespace Nailcrow.Core.Tests.Appliances;

public class PullVerdictTests
{
    [Fact]
    public void The_bad_drive_may_go_and_each_good_one_thins_what_is_left()
    {
        var verdicts = BayVerdict.ForAll(Some.Snapshot());

        verdicts
            .Single(v => v.Bay == "2")
            .ShouldBe(new BayVerdict("2", PullVerdict.Safe, "vault has already dropped this drive and runs without it."));
        verdicts
            .Single(v => v.Bay == "3")
            .ShouldBe(new BayVerdict("3", PullVerdict.Thins, "vault survives, but could then lose no drive more."));
    }

    [Fact]
    public void At_no_margin_every_member_is_fatal()
    {
        var snapshot = Some.Snapshot(ArrayLevel.Raid5);

        BayVerdict
            .ForAll(snapshot)
            .Single(v => v.Bay == "5")
            .ShouldBe(new BayVerdict("5", PullVerdict.Fatal, "vault cannot lose this member: its data would be lost."));
    }

    [Fact]
    public void A_drive_being_filled_costs_no_data_but_its_rebuild()
    {
        var snapshot = Some.Snapshot(state: ArrayState.Rebuilding, badRole: BayRole.Filling);

        BayVerdict
            .ForAll(snapshot)
            .Single(v => v.Bay == "2")
            .ShouldBe(new BayVerdict("2", PullVerdict.Safe, "vault does not count on this drive yet, but its rebuild would start over."));
    }

    /// <summary>Levels as they are in the world: which sets of lost members lose the data.</summary>
    private static bool Survives(ArrayLevel level, IReadOnlyList<bool> present, int groups)
    {
        var lost = present.Chunk(present.Count / groups).Select(g => g.Count(p => !p)).ToList();
        return level switch
        {
            ArrayLevel.Raid0 => lost[0] == 0,
            ArrayLevel.Raid1 => lost[0] < present.Count,
            ArrayLevel.Raid60 => lost.All(l => l <= 2),
            ArrayLevel.Raid6 or ArrayLevel.MixedSizeTwo or ArrayLevel.KPlusM => lost[0] <= 2,
            ArrayLevel.TripleParity => lost[0] <= 3,
            _ => lost.All(l => l <= 1),
        };
    }

    /// <summary>The most further losses of any members that are all survived; -1 where the data is lost already.</summary>
    private static int Bears(ArrayLevel level, bool[] present, int groups)
    {
        if (!Survives(level, present, groups))
            return -1;
        var left = Enumerable.Range(0, present.Length).Where(i => present[i]).ToList();
        return left.Count == 0 ? 0 : Math.Max(0, 1 + left.Min(i => Bears(level, [.. present.Select((p, j) => p && j != i)], groups)));
    }

    private static int GroupsOf(ArrayLevel level, int members) =>
        level switch
        {
            ArrayLevel.Raid10 => members / 2,
            ArrayLevel.Raid50 or ArrayLevel.Raid60 => 2,
            _ => 1,
        };

    [Fact]
    public void No_verdict_is_better_than_trying_every_further_loss_says()
    {
        var arrays =
            from level in OneOf(Enum.GetValues<ArrayLevel>())
            from pairs in Gen.Int[level == ArrayLevel.Raid60 ? 4 : 3, 4]
            from known in Gen.Bool
            from present in Gen.Bool.Array[2 * pairs]
            select (level, known, present);

        arrays.Sample(a =>
        {
            var groups = GroupsOf(a.level, a.present.Length);
            var (snapshot, array) = Some.Array(a.level, string.Concat(a.present.Select(p => p ? 'm' : 'd')), groups: groups, told: a.known);
            var now = Bears(a.level, a.present, groups);
            if (now >= 0 || a.known || groups == 1) // nobody can tell a lost group where it is unknown who belongs to it
                Margin.Of(snapshot, array).ShouldBeLessThanOrEqualTo(now);
            foreach (var i in Enumerable.Range(0, a.present.Length).Where(i => a.present[i] && now >= 0))
            {
                var after = Bears(a.level, [.. a.present.Select((p, j) => p && j != i)], groups);
                var verdict = BayVerdict.For(snapshot, snapshot.Bays[i]).Verdict;
                (after < 0 ? verdict : PullVerdict.Fatal).ShouldBe(PullVerdict.Fatal);
                if (groups == 1 || a.known)
                    verdict.ShouldBe(after < 0 ? PullVerdict.Fatal : PullVerdict.Thins);
                BayVerdict.ForAll(snapshot)[i].Verdict.ShouldBe(verdict);
            }
        });
    }
}
