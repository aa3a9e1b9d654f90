using Nailcrow.Core.People.SigningIn;

namespace Nailcrow.Core.Tests.SigningIn;

public sealed class TryLimitTests
{
    private static readonly DateTimeOffset Noon = new(2026, 3, 1, 12, 0, 0, TimeSpan.Zero);

    private static readonly TryLimit Limit = new(3, TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(60), TimeSpan.FromHours(1));

    private static WrongTries Wrong(int times) =>
        Enumerable.Range(0, times).Aggregate(default(WrongTries), (tries, _) => Limit.More(tries, Noon));

    [Theory]
    [InlineData(0, 0)]
    [InlineData(2, 0)]
    [InlineData(3, 2)]
    [InlineData(4, 4)]
    [InlineData(5, 8)]
    [InlineData(8, 60)]
    [InlineData(500, 60)]
    public void After_the_free_ones_each_wrong_try_doubles_the_wait_to_a_longest(int wrong, int seconds) =>
        Limit.Wait(Wrong(wrong), Noon).ShouldBe(TimeSpan.FromSeconds(seconds));

    [Fact]
    public void A_wait_passes() => Limit.Wait(Wrong(5), Noon.AddSeconds(7)).ShouldBe(TimeSpan.FromSeconds(1));

    [Fact]
    public void A_wait_that_has_passed_is_none() => Limit.Wait(Wrong(5), Noon.AddSeconds(8)).ShouldBe(TimeSpan.Zero);

    [Fact]
    public void After_long_enough_all_is_forgotten()
    {
        Limit.Wait(Wrong(500), Noon.AddHours(1)).ShouldBe(TimeSpan.Zero);
        Limit.More(Wrong(500), Noon.AddHours(1)).Count.ShouldBe(1);
    }

    [Fact]
    public void However_many_addresses_try_one_name_there_are_fewer_than_a_hundred_tries_in_an_hour()
    {
        var (now, tries, tried) = (Noon, default(WrongTries), 0);
        while (now < Noon.AddHours(1))
        {
            if (TryLimit.OfName.Wait(tries, now) > TimeSpan.Zero)
            {
                now += TimeSpan.FromSeconds(1);
                continue;
            }
            (tries, tried) = (TryLimit.OfName.More(tries, now), tried + 1);
        }

        tried.ShouldBeInRange(21, 100);
    }
}
