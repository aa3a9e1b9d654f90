using Nailcrow.Core.People.SigningIn;

namespace Nailcrow.Core.Tests.SigningIn;

public sealed class PasswordTests
{
    private static readonly string[] Common = ["password", "correcthorse", "qwertyuiopas"];

    private static string? WhyNot(string? password) => Password.WhyNot(password, "norra", "Norra Selmark", Common.Contains);

    [Theory]
    [InlineData(0, "A password has 12 to 128 characters; this has 0.")]
    [InlineData(11, "A password has 12 to 128 characters; this has 11.")]
    [InlineData(12, null)]
    [InlineData(128, null)]
    [InlineData(129, "A password has 12 to 128 characters; this has 129.")]
    public void A_password_is_long_and_not_endless(int length, string? reason) =>
        WhyNot(string.Concat(Enumerable.Range(0, length).Select(i => (char)('a' + i * 7 % 23)))).ShouldBe(reason);

    [Fact]
    public void A_character_counts_as_one_whatever_it_takes_to_keep_it() =>
        WhyNot(string.Concat(Enumerable.Repeat("🪛🔩", 5))).ShouldBe("A password has 12 to 128 characters; this has 10.");

    [Theory]
    [InlineData("correcthorse")]
    [InlineData("QwertyUiopas")]
    [InlineData("password1234")]
    [InlineData("1234!password")]
    [InlineData("aaaaaaaaaaaa")]
    [InlineData("abcabcabcabcabc")]
    [InlineData("123123123123")]
    public void What_is_tried_first_is_refused_also_with_digits_around_it(string password) =>
        WhyNot(password).ShouldBe("That password is among those that are tried first; choose one that nobody else would.");

    [Theory]
    [InlineData("my-norra-2026-x", "norra")]
    [InlineData("SELMARK under lid", "selmark")]
    [InlineData("the nailcrow one", "nailcrow")]
    public void Ones_own_name_and_ours_are_no_part_of_it(string password, string own) =>
        WhyNot(password).ShouldBe($"That password has '{own}' in it, which is the first thing that is tried; choose one without.");

    [Theory]
    [InlineData("seven grey kettles")]
    [InlineData("пять серых чайников")]
    [InlineData("horse correct password")]
    public void Anything_else_is_taken_in_whatever_letters(string password) => WhyNot(password).ShouldBeNull();
}
