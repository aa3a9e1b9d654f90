using CsCheck;
using Nailcrow.Core.Terms;
using static Nailcrow.Core.Tests.Generated;

namespace Nailcrow.Core.Tests.Swaps;

public class SerialTests
{
    [Theory]
    [InlineData("P8BADD0517", SerialOutcome.Exact, "P8BADD0517: the same serial.")]
    [InlineData("s/n: p8badd0517", SerialOutcome.Exact, "P8BADD0517: the same serial.")]
    [InlineData("SP8BADD0517", SerialOutcome.Exact, "P8BADD0517: the same serial.")]
    [InlineData("1SP8BADD0517", SerialOutcome.Exact, "P8BADD0517: the same serial.")]
    [InlineData("0517", SerialOutcome.Fragment, "0517 is the end of P8BADD0517; read the whole serial from the label.")]
    [InlineData("517", SerialOutcome.Different, "517 was read; P8BADD0517 was expected.")]
    [InlineData(
        "PBBADDO517",
        SerialOutcome.LikelyMisreading,
        "PBBADDO517 is not P8BADD0517, but only in characters people misread (B for 8 at place 2, O for 0 at place 7); look again or scan."
    )]
    [InlineData("P8BADD0518", SerialOutcome.Different, "P8BADD0518 was read; P8BADD0517 was expected.")]
    [InlineData("", SerialOutcome.Different, "Nothing was read; P8BADD0517 was expected.")]
    public void A_serial_that_was_read_is_told_from_the_one_expected(string read, SerialOutcome outcome, string sentence) =>
        SerialComparison.Between(read, Some.Bad).ShouldBe(new SerialComparison(outcome, sentence));

    [Theory]
    [InlineData("abc", "Serial 'ABC' has 3 characters; a label has 4 to 40.")]
    [InlineData("P8#BAD", "Serial 'P8#BAD' has '#'; a serial has letters, digits and dashes.")]
    public void What_is_no_serial_is_refused_with_the_reason(string typed, string reason) =>
        SerialNumber.Parse(typed).ShouldBe(new Parsed<SerialNumber>.Refused(reason));

    private static readonly Gen<string> Serials = Gen.Char["ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789"].Array[6, 14].Select(c => new string(c));

    [Fact]
    public void However_a_label_dresses_a_serial_up_it_stays_the_same_serial() =>
        Gen.Select(Serials, OneOf("", "S/N: ", "SN:", "Serial No. :", "S", "11S"), Gen.Bool)
            .Sample(
                (serial, prefix, lower) =>
                {
                    var read = prefix + (lower ? serial.ToLowerInvariant() : serial);
                    SerialComparison.Between($"  {read[..3]} {read[3..]} ", serial).Outcome.ShouldBe(SerialOutcome.Exact);
                }
            );

    [Fact]
    public void Two_serials_are_compared_the_same_both_ways_unless_one_is_part_of_the_other() =>
        Gen.Select(Serials, Serials)
            .Sample(
                (a, b) =>
                {
                    var there = SerialComparison.Between(a, b).Outcome;
                    if (a.Length == b.Length)
                        SerialComparison.Between(b, a).Outcome.ShouldBe(there);
                }
            );
}
