using CsCheck;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tests.Terms;

/// <summary>What a terminal would obey is shown instead.</summary>
public class VisibleTests
{
    [Theory]
    [InlineData("\u001b[2J", "␛[2J")]
    [InlineData("bell\u0007", "bell␇")]
    [InlineData("rub\u007Fout", "rub␡out")]
    [InlineData("\u009b31m", "\\u009B31m")]
    [InlineData("safe\u202Eelbatnurt", "safe\\u202Eelbatnurt")]
    [InlineData("two\nlines", "two␊lines")]
    [InlineData("Größe 8 TB, 日本, 💾", "Größe 8 TB, 日本, 💾")]
    public void Each_kind_of_trick_has_its_own_picture_and_ordinary_words_stay(string text, string shown) =>
        Visible.Text(text).ShouldBe(shown);

    [Fact]
    public void Text_of_several_lines_keeps_its_lines_and_tabs_and_nothing_else() =>
        Visible.Lines("one\n\ttwo\r\u001b[1m\r\n").ShouldBe("one\n\ttwo␍␛[1m\r\n");

    [Fact]
    public void Whatever_comes_in_nothing_comes_out_that_moves_a_cursor_or_turns_a_line()
    {
        Gen.Char.Array[0, 200]
            .Sample(chars =>
            {
                var shown = Visible.Text(new string(chars));
                return shown.All(c =>
                        !char.IsControl(c)
                        && char.GetUnicodeCategory(c)
                            is not System.Globalization.UnicodeCategory.LineSeparator
                                and not System.Globalization.UnicodeCategory.ParagraphSeparator
                    )
                    && shown.IndexOfAny([
                        '\u202A',
                        '\u202B',
                        '\u202C',
                        '\u202D',
                        '\u202E',
                        '\u2066',
                        '\u2067',
                        '\u2068',
                        '\u2069',
                        '\u200E',
                        '\u200F',
                        '\u061C',
                    ]) < 0;
            });
    }

    [Fact]
    public void What_was_made_visible_once_stays_as_it_is() =>
        Gen.Char.Array[0, 100].Sample(chars => Visible.Text(Visible.Text(new string(chars))) == Visible.Text(new string(chars)));
}
