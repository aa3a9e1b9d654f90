using System.Text;
using Nailcrow.Core.People.SecondFactor;

namespace Nailcrow.Core.Tests.SecondFactor;

/// <summary>Codes are those of RFC 6238: the vectors are its appendix B, cut to the six digits that devices show.</summary>
public sealed class OneTimeCodeTests
{
    private static readonly byte[] Key = Encoding.ASCII.GetBytes("12345678901234567890");
    private static readonly DateTimeOffset Now = DateTimeOffset.FromUnixTimeSeconds(1_111_111_111);

    [Theory]
    [InlineData(59, "287082")]
    [InlineData(1_111_111_109, "081804")]
    [InlineData(1_111_111_111, "050471")]
    [InlineData(1_234_567_890, "005924")]
    [InlineData(2_000_000_000, "279037")]
    [InlineData(20_000_000_000, "353130")]
    public void A_device_shows_what_the_standard_says(long seconds, string code) =>
        OneTimeCode.At(Key, DateTimeOffset.FromUnixTimeSeconds(seconds)).ShouldBe(code);

    [Theory]
    [InlineData(-60, false)]
    [InlineData(-30, true)]
    [InlineData(0, true)]
    [InlineData(30, true)]
    [InlineData(60, false)]
    public void A_clock_may_be_out_by_half_a_minute_and_no_more(int seconds, bool taken) =>
        OneTimeCode.Taken(Key, OneTimeCode.At(Key, Now.AddSeconds(seconds)), Now, 0).HasValue.ShouldBe(taken);

    [Fact]
    public void A_code_opens_once_and_so_does_none_before_it()
    {
        var first = OneTimeCode.Taken(Key, OneTimeCode.At(Key, Now), Now, 0).ShouldNotBeNull();

        OneTimeCode.Taken(Key, OneTimeCode.At(Key, Now), Now, first).ShouldBeNull();
        OneTimeCode.Taken(Key, OneTimeCode.At(Key, Now.AddSeconds(-30)), Now, first).ShouldBeNull();
        OneTimeCode.Taken(Key, OneTimeCode.At(Key, Now.AddSeconds(30)), Now, first).ShouldBe(first + 1);
    }

    [Theory]
    [InlineData("050 471", true)]
    [InlineData(" 050471 ", true)]
    [InlineData("50471", false)]
    [InlineData("0504711", false)]
    [InlineData("", false)]
    [InlineData("٠٥٠٤٧١", false)]
    [InlineData("-50471", false)]
    public void Six_digits_are_typed_and_nothing_else_will_do(string typed, bool taken) =>
        OneTimeCode.Taken(Key, typed, Now, 0).HasValue.ShouldBe(taken);

    [Fact]
    public void The_picture_says_whose_key_it_is_and_of_which_service() =>
        OneTimeCode
            .KeyUri(Key, "Nailcrow", "o'vark & co")
            .ShouldBe("otpauth://totp/Nailcrow:o%27vark%20%26%20co?secret=GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ&issuer=Nailcrow");
}
