using CsCheck;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tests.Terms;

/// <summary>What a serial may have been that was read off a worn label: whoever writes it down as new is asked first.</summary>
public class LookAlikeTests
{
    // Written down here once more, pair by pair.
    private static readonly (char, char)[] Confused =
    [
        ('0', 'O'),
        ('0', 'Q'),
        ('0', 'D'),
        ('O', 'Q'),
        ('O', 'D'),
        ('Q', 'D'),
        ('1', 'I'),
        ('1', 'L'),
        ('I', 'L'),
        ('2', 'Z'),
        ('5', 'S'),
        ('6', 'G'),
        ('8', 'B'),
    ];

    private static readonly Gen<string> Serials = Gen.Char["ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789"].Array[4, 16].Select(c => new string(c));

    private static bool AreConfused(char a, char b) => Confused.Contains((a, b)) || Confused.Contains((b, a));

    [Fact]
    public void Nothing_is_named_that_differs_in_more_than_what_people_misread() =>
        Serials.Sample(serial =>
        {
            var may = SerialComparison.MayBe(serial).ToList();
            may.Count.ShouldBeLessThanOrEqualTo(400);
            may.ShouldBeUnique();
            may.ShouldNotContain(serial);
            may.ShouldAllBe(m =>
                m.Length == serial.Length && m.Zip(serial).All(p => p.First == p.Second || AreConfused(p.First, p.Second))
            );
        });

    [Fact]
    public void Whoever_misread_one_character_is_told_of_the_serial_that_it_was() =>
        Gen.Select(Serials, Gen.Int[0, 15], Gen.Int[0, 12])
            .Sample(
                (serial, at, pair) =>
                {
                    var (a, b) = Confused[pair];
                    var place = at % serial.Length;
                    var (was, read) = ($"{serial[..place]}{a}{serial[(place + 1)..]}", $"{serial[..place]}{b}{serial[(place + 1)..]}");
                    SerialComparison.MayBe(read).ShouldContain(was);
                    SerialComparison.MayBe(was).ShouldContain(read);
                }
            );

    [Theory]
    [InlineData("C8PLAYOOO1", "C8PLAY0001")] // a row of the same
    [InlineData("C8LOOKOOO1", "C8LOOK0001")] // and not where else it stands
    [InlineData("5O7O9OX", "50709OX")]
    [InlineData("5O7O9O1O", "50709010")] // one character, wherever it stands
    [InlineData("CDR12T0O46I57", "CDR12T0046157")] // two of different kinds
    [InlineData("HSKZBRIDRHP", "H5KZBR1DRHP")]
    [InlineData("O0OIIL5S", "00011155")] // all of it, as digits
    public void Whoever_misread_several_is_told_as_well(string read, string was) => SerialComparison.MayBe(read).ShouldContain(was);

    [Theory, InlineData("PWX4MN7K"), InlineData("")]
    public void What_can_be_read_in_one_way_only_may_be_nothing_else(string serial) => SerialComparison.MayBe(serial).ShouldBeEmpty();
}
