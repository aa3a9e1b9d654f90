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
                (after >= 0 || BayVerdict.For(snapshot, snapshot.Bays[i]).NeedsALead()).ShouldBeTrue();
                if (groups == 1 || a.known)
                    verdict.ShouldBe(after < 0 ? PullVerdict.Fatal : PullVerdict.Thins);
                BayVerdict.ForAll(snapshot)[i].Verdict.ShouldBe(verdict);
            }
        });
    }

    /// <summary>What is drawn of one bay of the array, and whether its drive serves in truth.</summary>
    private static (Bay Bay, bool Serves) Drawn(int index, int kind, bool hidden, int? among)
    {
        Bay As(BayRole role, DriveHealth health) => new($"{index}", role, health, Serial: $"S{index}", Array: "vault", Group: among);
        return kind switch
        {
            0 => (As(BayRole.Member, DriveHealth.Faulted), false),
            1 => (As(BayRole.Filling, DriveHealth.Good), false),
            2 => (As(BayRole.Dropped, DriveHealth.Faulted), false),
            3 => (new Bay($"{index}", BayRole.Empty), false),
            4 => (new Bay($"{index}", BayRole.NotKnown), hidden),
            5 => (As(BayRole.Member, DriveHealth.Unknown), true),
            _ => (As(BayRole.Member, DriveHealth.Good), true),
        };
    }

    [Fact]
    public void Nothing_that_loses_data_in_truth_is_called_safe_or_thinning_whatever_contradicts_or_is_not_known()
    {
        var tried = 0;
        var arrays =
            from level in OneOf(Enum.GetValues<ArrayLevel>())
            from pairs in Gen.Int[level == ArrayLevel.Raid60 ? 4 : 3, 4]
            let members = 2 * pairs
            let groups = GroupsOf(level, members)
            from told in Gen.Bool
            from kinds in Gen.Select(Gen.Int[0, 9], Gen.Bool).Array[members]
            let drawn = kinds.Select((k, i) => Drawn(i, k.Item1, k.Item2, told ? i / (members / groups) : null)).ToList()
            from state in OneOf(ArrayState.Whole, ArrayState.Degraded, ArrayState.Rebuilding)
            from ghost in Gen.Int[0, members - 1]
            select (level, groups, drawn, state, ghost);

        arrays.Sample(
            a =>
            {
                var serves = a.drawn.Select(d => d.Serves).ToArray();
                // By its own word it is short of one; if all seem to serve, one of them does not, and nobody knows which.
                if (a.state != ArrayState.Whole && serves.All(s => s))
                    serves[a.ghost] = false;
                var truth = Bears(a.level, serves, a.groups);
                var array = new DriveArray("vault", a.level, serves.Length, a.state, Groups: a.groups == 1 ? null : a.groups, Parity: 2);
                var snapshot = new Snapshot(DateTimeOffset.UnixEpoch, "redfish", [.. a.drawn.Select(d => d.Bay)], [array]);
                if (truth < 0)
                    return; // one that serves by its own word has not lost its data
                Interlocked.Increment(ref tried);
                Margin.Of(snapshot, array).ShouldBeLessThanOrEqualTo(truth);
                foreach (var i in Enumerable.Range(0, serves.Length).Where(i => serves[i]))
                {
                    var after = Bears(a.level, [.. serves.Select((s, j) => s && j != i)], a.groups);
                    if (after < 0)
                        BayVerdict.For(snapshot, snapshot.Bays[i]).NeedsALead().ShouldBeTrue($"bay {i}");
                }
            },
            iter: 8_000
        );
        tried.ShouldBeGreaterThan(1_000);
    }

    [Fact]
    public void Bays_that_nobody_described_are_neither_lost_nor_there()
    {
        var described = Enumerable
            .Range(1, 3)
            .Select(i => new Bay($"{i}", BayRole.Member, DriveHealth.Good, Serial: $"S{i}", Array: "vault"));
        var untold = Enumerable.Range(4, 5).Select(i => new Bay($"{i}", BayRole.NotKnown));
        var array = new DriveArray("vault", ArrayLevel.Raid6, 8, ArrayState.Degraded);
        var snapshot = new Snapshot(DateTimeOffset.UnixEpoch, "person", [.. described, .. untold], [array]);

        Standing.Of(snapshot, array).IsLost.ShouldBeFalse();
        var verdict = BayVerdict.For(snapshot, snapshot.Bays[0]);
        verdict.Verdict.ShouldBe(PullVerdict.NotKnown);
        verdict.Reason.ShouldBe("Whether vault can lose this member is not known. Nobody has described 5 of the 8 drives of vault.");
        // Told by the machine for these three bays only, without a word on the others: the same.
        BayVerdict.For(snapshot with { Bays = [.. snapshot.Bays.Take(3)] }, snapshot.Bays[0]).Verdict.ShouldBe(PullVerdict.NotKnown);
    }

    [Fact]
    public void A_drive_that_may_bring_the_data_back_is_never_safe()
    {
        var failed = Some.Snapshot(ArrayLevel.Raid5, state: ArrayState.Failed);
        var foreign = new Bay("9", BayRole.Foreign, DriveHealth.Good, Serial: "SF9");

        BayVerdict
            .For(failed, failed.BayLabelled("2")!)
            .Reason.ShouldEndWith("may be what brings its data back. Call before it is pulled.");
        BayVerdict.For(failed, foreign).Verdict.ShouldBe(PullVerdict.NotKnown);
        BayVerdict
            .For(failed, new Bay("9", BayRole.Member, DriveHealth.Good, Serial: "SF9", Array: "attic"))
            .Verdict.ShouldBe(PullVerdict.NotKnown);
    }

    [Fact]
    public void A_failed_drive_that_is_still_listed_counts_for_nothing_and_that_is_told()
    {
        var bays = Enumerable
            .Range(1, 4)
            .Select(i => new Bay($"{i}", BayRole.Member, i == 2 ? DriveHealth.Faulted : DriveHealth.Good, Serial: $"S{i}", Array: "vault"));
        var array = new DriveArray("vault", ArrayLevel.Raid5, 4, ArrayState.Whole);
        var snapshot = new Snapshot(DateTimeOffset.UnixEpoch, "redfish", [.. bays], [array]);

        var standing = Standing.Of(snapshot, array);
        (standing.Serving, standing.Margin.Worst, snapshot.IsWhole(array)).ShouldBe((3, 0, false));
        standing.Doubts.ShouldBe(["Bay 2 is listed as a member of vault and reads faulted: it is not counted."]);
        BayVerdict.For(snapshot, snapshot.Bays[0]).Verdict.ShouldBe(PullVerdict.Fatal);
        BayVerdict
            .For(snapshot, snapshot.Bays[1])
            .Reason.ShouldBe("vault does not count on this drive, which has failed; it could then lose no drive more.");
    }

    [Theory, InlineData(ArrayState.Degraded), InlineData(ArrayState.Rebuilding)]
    public void An_array_that_says_it_is_short_is_short_also_where_every_member_reads_well(ArrayState state)
    {
        var (snapshot, array) = Some.Array(ArrayLevel.Raid5, "mmmm", state: state);

        Margin.Of(snapshot, array).ShouldBe(0);
        BayVerdict.For(snapshot, snapshot.Bays[0]).Verdict.ShouldBe(PullVerdict.Fatal);
        Standing.Of(snapshot, array).Doubts.ShouldHaveSingleItem().ShouldEndWith("it is taken to be one short.");
    }

    [Fact]
    public void An_odd_number_of_drives_with_two_copies_serves_while_it_says_so()
    {
        var (snapshot, array) = Some.Array(ArrayLevel.Raid10, "mdmdm", told: false, state: ArrayState.Degraded);
        var odd = array with { Groups = null };
        snapshot = snapshot with { Arrays = [odd] };

        SnapshotProblems.In(snapshot).ShouldBeEmpty();
        Standing.Of(snapshot, odd).IsLost.ShouldBeFalse();
        Margin.Of(snapshot, odd).ShouldBe(0);
    }
}
