using System.Text;
using CsCheck;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tests.Terms;

/// <summary>What is cut or turned round stays a text that any database takes.</summary>
public sealed class ShortenedTests
{
    // Throws at half a character, as a database's driver does.
    private static readonly UTF8Encoding Strict = new(false, throwOnInvalidBytes: true);

    private static readonly string[] Characters = ["a", "ß", "中", "🔩", "🧰", "-", "7"];

    private static readonly Gen<string> Texts = Gen.Int[0, Characters.Length - 1]
        .Array[0, 40]
        .Select(some => string.Concat(some.Select(i => Characters[i])));

    [Fact]
    public void A_text_is_cut_between_characters_and_says_that_there_was_more() =>
        Gen.Select(Texts, Gen.Int[0, 60])
            .Sample(
                (text, most) =>
                {
                    var cut = Shortened.To(text, most, null);
                    Strict.GetByteCount(cut).ShouldBeGreaterThanOrEqualTo(0);
                    cut.Length.ShouldBeInRange(Math.Min(text.Length, Math.Max(most - 1, 0)), most > text.Length ? text.Length : most);
                    text.ShouldStartWith(cut, Case.Sensitive);
                    Shortened.To(text, most).EndsWith("...", StringComparison.Ordinal).ShouldBe(text.Length > most);
                }
            );

    [Fact]
    public void A_text_that_is_turned_round_has_the_same_characters_from_the_last_to_the_first() =>
        Texts.Sample(text =>
        {
            var turned = Shortened.Reversed(text);
            Strict.GetByteCount(turned).ShouldBe(Strict.GetByteCount(text));
            Shortened.Reversed(turned).ShouldBe(text);
        });

    [Fact]
    public void Half_a_character_is_shown_as_what_cannot_be_read() => Shortened.Whole("🔩"[..1] + "a").ShouldBe("\uFFFDa");
}
