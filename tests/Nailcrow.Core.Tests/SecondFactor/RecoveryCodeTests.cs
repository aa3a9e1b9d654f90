using Nailcrow.Core.People.SecondFactor;
using Nailcrow.Core.People.SigningIn;

namespace Nailcrow.Core.Tests.SecondFactor;

public sealed class RecoveryCodeTests
{
    [Theory]
    [InlineData("bcdfg-hjkmn", "bcdfghjkmn")]
    [InlineData(" BCDFG hjkmn", "bcdfghjkmn")]
    [InlineData("23456-789bc", "23456789bc")]
    [InlineData("bcdfg-hjkm", null)]
    [InlineData("bcdfg-hjkml", null)]
    [InlineData("123456", null)]
    [InlineData("", null)]
    public void It_is_read_as_people_write_it(string typed, string? read) => RecoveryCode.Read(typed).ShouldBe(read);

    [Fact]
    public void It_is_printed_in_two_groups_and_read_again() => RecoveryCode.Read(RecoveryCode.Told("bcdfghjkmn")).ShouldBe("bcdfghjkmn");

    [Fact]
    public void No_letter_is_read_as_another() => SpokenLetters.All.Intersect("aeiou01lyABC").ShouldBeEmpty();
}
